import { axesOf, axisOf, type BikeType } from '@/core/bikes/bike/bike'
import type { AxisName, Label, Marks } from '@/core/base/conventions'
import { formatLabel } from '@/core/messages/words/labels'
import { axisTitle } from '@/core/messages/words/phrases'
import { stripOf } from '@/core/bikes/scale/strip'
import styles from './scaleStrip.module.css'

const [WIDTH, LINE, MARGIN] = [260, 20, 14]
/** One scale of several below each other: its height, and where its strip begins. */
const [ROW, BELOW] = [104, 44]

type Props = Readonly<{ bikeType: BikeType; axis: AxisName; label?: Label }>

/** A bike's scale as a strip with the mark to set, as it is printed there. */
export function ScaleStrip({ bikeType, axis, label }: Props) {
  if (!axisOf(bikeType, axis)) return null
  return (
    <svg className={styles.strip} viewBox={`0 0 ${WIDTH} 48`} aria-hidden="true">
      <Strip bikeType={bikeType} axis={axis} label={label} width={WIDTH} />
    </svg>
  )
}

/** All scales of a bike below each other, each with its name and the mark to set. */
export function ScalesDrawing({ bikeType, marks }: Readonly<{ bikeType: BikeType; marks: Marks }>) {
  const axes = axesOf(bikeType)
  const spoken = axes.flatMap((axis) => {
    const label = marks[axis]
    return label === undefined ? [] : [`${axisTitle(bikeType, axis)} ${formatLabel(bikeType, axis, label)}`]
  })
  const width = WIDTH + 100
  return (
    <svg
      className={`${styles.strip} ${styles.all}`}
      viewBox={`0 0 ${width} ${ROW * axes.length}`}
      role="img"
      aria-label={`The scales of ${bikeType.name}: ${spoken.join(', ')}`}
    >
      {axes.map((axis, i) => (
        <g key={axis} transform={`translate(0 ${ROW * i})`}>
          <text className={styles.title} x={MARGIN} y={24}>
            {axisTitle(bikeType, axis)}
          </text>
          <text className={styles.number} x={width - MARGIN} y={30}>
            {marks[axis] === undefined ? '–' : formatLabel(bikeType, axis, marks[axis])}
          </text>
          <g transform={`translate(0 ${BELOW})`}>
            <Strip bikeType={bikeType} axis={axis} label={marks[axis]} width={width} />
          </g>
        </g>
      ))}
    </svg>
  )
}

function Strip({ bikeType, axis, label, width }: Props & Readonly<{ width: number }>) {
  const { ticks, setAt } = stripOf(axisOf(bikeType, axis)!.scale, label)
  const x = (at: number) => MARGIN + at * (width - 2 * MARGIN)
  return (
    <>
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
    </>
  )
}
