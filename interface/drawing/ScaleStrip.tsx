import { axisOf, type BikeType } from '@/core/bike/bike'
import type { AxisName, Label } from '@/core/conventions'
import { formatLabel } from '@/core/messages/labels'
import { stripOf } from '@/core/scale/strip'
import styles from './scaleStrip.module.css'

const [WIDTH, LINE, MARGIN] = [260, 20, 14]

/** A bike's scale as a strip with the mark to set, as it is printed there. */
export function ScaleStrip({ bikeType, axis, label }: { bikeType: BikeType; axis: AxisName; label?: Label }) {
  const axisOfType = axisOf(bikeType, axis)
  if (!axisOfType) return null
  const { ticks, setAt } = stripOf(axisOfType.scale, label)
  const x = (at: number) => MARGIN + at * (WIDTH - 2 * MARGIN)
  return (
    <svg className={styles.strip} viewBox={`0 0 ${WIDTH} 48`} aria-hidden="true">
      <path className={styles.rail} d={`M${x(0)} ${LINE}H${x(1)}`} />
      {ticks.map((tick) => (
        <g key={tick.label}>
          <path d={`M${x(tick.at)} ${LINE - (tick.half ? 5 : 9)}V${LINE + (tick.half ? 5 : 9)}`} />
          {tick.written && (
            <text className={tick.at === setAt ? styles.set : undefined} x={x(tick.at)} y={45}>
              {formatLabel(bikeType, axis, tick.label)}
            </text>
          )}
        </g>
      ))}
      {setAt !== null && <circle cx={x(setAt)} cy={LINE} r={10} />}
    </svg>
  )
}
