import { axesOf, type BikeType } from '@/core/bikes/bike/bike'
import type { BikeEquipment } from '@/core/bikes/bike/equipment'
import type { Marks } from '@/core/base/conventions'
import { formatHowToSet } from '@/core/messages/riders/memberPage'
import { formatLabel, formatTryAlone } from '@/core/messages/words/labels'
import { axisTitle } from '@/core/messages/words/phrases'
import type { SelfAdjustmentRange } from '@/core/setups/recommend/request/selfAdjustment'
import { BikeDrawing } from '../../kit/drawing/BikeDrawing'
import { ScaleStrip } from '../../kit/scale/ScaleStrip'
import styles from './memberPage.module.css'

/** The numbers of a machine or a type, large, with how each is set and what may be tried. */
export function OwnNumbers({
  type,
  closing,
  marks,
  tryAlone,
}: {
  type: BikeType
  closing: BikeEquipment['closing']
  marks: Marks
  tryAlone: SelfAdjustmentRange
}) {
  return (
    <>
      <dl className={styles.numbers}>
        {axesOf(type).map((axis) => {
          const alone = tryAlone[axis] ?? []
          return (
            <div key={axis}>
              <dt>{axisTitle(type, axis)}</dt>
              <dd className={styles.number}>
                {marks[axis] === undefined ? '–' : formatLabel(type, axis, marks[axis])}
              </dd>
              <dd className={styles.where}>
                <ScaleStrip bikeType={type} axis={axis} label={marks[axis]} />
                {alone.length > 0 && <span>You {formatTryAlone(type, axis, alone, marks[axis])}</span>}
              </dd>
            </div>
          )
        })}
      </dl>
      <details className={styles.how}>
        <summary>How to set them</summary>
        <div className={styles.drawing}>
          <BikeDrawing bikeType={type} marks={marks} shown="metric" />
        </div>
        <ol>
          <li>Stand beside the bike, nobody on it.</li>
          {axesOf(type).map((axis) => (
            <li key={axis}>
              <b>
                {axisTitle(type, axis)} {marks[axis] === undefined ? '' : formatLabel(type, axis, marks[axis])}
              </b>
              <br />
              {formatHowToSet(axis, closing[axis], type.axes[axis]?.riderOn)}
            </li>
          ))}
        </ol>
      </details>
    </>
  )
}
