'use client'
import { axisOf, type Bike, type BikeType } from '@/core/bikes/bike/bike'
import { contactPoints, resolveMarks, type Lengths } from '@/core/bikes/bike/contactPoints'
import { SEAT_AXES, type AxisName } from '@/core/base/adjustments'
import { measuredAxesOf } from '@/core/bikes/calibration/readings'
import type { Marks } from '@/core/base/conventions'
import { positionsOf } from '@/core/bikes/scale/scale'
import { formatBikeLength, type UnitSystem } from '@/core/base/length'
import { BikeFrame } from './BikeFrame'
import { bikeScene } from './sideView'
import styles from './bikeDrawing.module.css'

type Props = Readonly<{
  bikeType: BikeType
  bike?: Bike
  marks: Marks
  shown: UnitSystem
  /** Lengths drawn with their numbers, at the ends of the tape. */
  lengths?: readonly (keyof Lengths)[]
}>

/** A type to scale, with every mark of every axis in its true place, and the tape's four lengths. */
export function BikeDrawing({ bikeType, bike = {}, marks, shown, lengths = [] }: Props) {
  const scene = bikeScene(bikeType, bike, marks)
  const { frame, seat, nose, grip } = scene
  const places = contactPoints(bikeType, bike, resolveMarks(bikeType, marks).positions).lengths
  // Room above the reach for its number.
  const top = lengths.includes('reachMm') ? Math.max(seat.yMm, grip.yMm) + 240 : 0
  const wide = {
    left: frame.leftMm - (lengths.length > 0 ? 160 : 60),
    top: Math.max(frame.topMm, grip.yMm + 260, top),
    right: frame.rightMm + (lengths.length > 0 ? 110 : 0),
    bottom: frame.bottomMm - 20,
  }
  const format = (mm: number) => formatBikeLength(mm, shown)
  return (
    <svg
      className={styles.view}
      viewBox={`${wide.left} ${-wide.top} ${wide.right - wide.left} ${wide.top - wide.bottom}`}
      preserveAspectRatio="xMidYMin meet"
      role="img"
      aria-label={
        `${bikeType.name || 'The type'} to scale: saddle height ${format(places.saddleHeightMm)}, ` +
        `setback ${format(places.setbackMm)}, reach ${format(places.reachMm)}, stack ` +
        `${format(places.stackMm)}`
      }
    >
      <BikeFrame scene={scene} />
      {measuredAxesOf(bikeType).map((axis) => (
        <Ticks key={axis} bikeType={bikeType} bike={bike} marks={marks} axis={axis} />
      ))}
      {lengths.includes('saddleHeightMm') && (
        <Measure
          from={[0, 0]}
          to={[seat.xMm, -seat.yMm]}
          name="saddle height"
          text={format(places.saddleHeightMm)}
          at={[seat.xMm / 2 - 50, -seat.yMm / 2]}
          end
        />
      )}
      {lengths.includes('setbackMm') && (
        <Measure
          from={[0, 130]}
          to={[nose.xMm, 130]}
          name="setback"
          text={format(places.setbackMm)}
          at={[Math.max(nose.xMm, 0) + 24, 150]}
          plumb={[nose.xMm, -nose.yMm]}
        />
      )}
      {lengths.includes('reachMm') && (
        <Measure
          from={[seat.xMm, -Math.max(seat.yMm, grip.yMm) - 150]}
          to={[grip.xMm, -Math.max(seat.yMm, grip.yMm) - 150]}
          name="reach"
          text={format(places.reachMm)}
          at={[seat.xMm + 20, -Math.max(seat.yMm, grip.yMm) - 176]}
        />
      )}
      {lengths.includes('stackMm') && (
        <Measure
          from={[grip.xMm + 90, 0]}
          to={[grip.xMm + 90, -grip.yMm]}
          name="stack"
          text={format(places.stackMm)}
          at={[grip.xMm + 116, -grip.yMm / 2]}
        />
      )}
    </svg>
  )
}

/** A dot at every place the part can be closed at, the one it is closed at filled. */
function Ticks({ bikeType, bike, marks, axis }: { bikeType: BikeType; bike: Bike; marks: Marks; axis: AxisName }) {
  const { positions } = resolveMarks(bikeType, marks)
  const isSeat = SEAT_AXES.includes(axis)
  return (
    <g>
      {positionsOf(axisOf(bikeType, axis)!.scale).map(({ label, mm }) => {
        const { seat, grip } = contactPoints(bikeType, bike, { ...positions, [axis]: mm })
        const at = isSeat ? seat : grip
        const here = Math.abs((positions[axis] ?? Number.NaN) - mm) < 1e-9
        return (
          <circle
            key={label}
            className={here ? styles.here : styles.tick}
            cx={at.xMm}
            cy={-at.yMm + (isSeat ? 0 : -24)}
            r={here ? 13 : 7}
          />
        )
      })}
    </g>
  )
}

type Pair = readonly [number, number]

function Measure({
  from,
  to,
  name,
  text,
  at,
  plumb,
  end = false,
}: {
  from: Pair
  to: Pair
  name: string
  text: string
  at: Pair
  plumb?: Pair
  end?: boolean
}) {
  return (
    <g className={styles.measure}>
      {plumb && <path className={styles.plumb} d={`M${plumb[0]} ${plumb[1]}V${to[1]}M0 0V${from[1]}`} />}
      <path d={`M${from[0]} ${from[1]}L${to[0]} ${to[1]}`} />
      <circle cx={from[0]} cy={from[1]} r={9} />
      <circle cx={to[0]} cy={to[1]} r={9} />
      <text x={at[0]} y={at[1]} textAnchor={end ? 'end' : 'start'}>
        <tspan className={styles.name}>{name} </tspan>
        {text}
      </text>
    </g>
  )
}
