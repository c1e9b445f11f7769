'use client'
import { Button } from 'antd'
import { axisPositions, contactPoints } from '@/core/bikes/bike/contactPoints'
import { formatContactDifference } from '@/core/messages/setups/register'
import { BikeOverlay } from '../../kit/drawing/BikeOverlay'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import styles from './timeLine.module.css'
import type { TimelineEntry } from './timelineEntries'

/** Two sets of numbers, the earlier first: both bikes drawn one over the other, and how far apart they put a rider. */
export function Compare({ two, close }: { two: readonly [TimelineEntry, TimelineEntry]; close: () => void }) {
  const { shown } = useUnitSystem()
  const [a, b] = two.map(({ type, bike, marks }) => contactPoints(type, bike, axisPositions(type, marks)))
  const [before, there] = two.map(({ type, bike, marks }) => ({ bikeType: type, bike, marks }))
  return (
    <div className={styles.compare} role="region" aria-label="Compared">
      <div className={styles.drawing}>
        <BikeOverlay before={before} there={there} target={a} reached={b} />
      </div>
      <div>
        <dl className={styles.pair}>
          {two.map((entry, i) => (
            <div key={entry.id}>
              <dt>
                {entry.date}, {entry.where}
              </dt>
              <dd className={i === 0 ? styles.faint : undefined}>{entry.line}</dd>
            </div>
          ))}
        </dl>
        <ul>
          {formatContactDifference(a.lengths, b.lengths, shown).map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
        <Button size="large" onClick={close}>
          Done
        </Button>
      </div>
    </div>
  )
}
