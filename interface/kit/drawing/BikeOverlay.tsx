'use client'
import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import type { Marks, Point } from '@/core/base/conventions'
import { BikeFrame } from './BikeFrame'
import { bikeScene } from './sideView'
import styles from './bikeOverlay.module.css'

type BikeSetting = Readonly<{ bikeType: BikeType; bike?: Bike; marks: Marks }>
type Props = Readonly<{
  before: BikeSetting
  there: BikeSetting
  /** Where seat and grip should be on the second bike, and where they are. */
  target: Readonly<{ seat: Point; grip: Point }>
  reached: Readonly<{ seat: Point; grip: Point }>
}>

/** Two bikes one over the other to scale, crank axle on crank axle: the target ringed, the result filled. */
export function BikeOverlay({ before, there, target, reached }: Props) {
  const [first, second] = [before, there].map(({ bikeType, bike = {}, marks }) => bikeScene(bikeType, bike, marks))
  const top = Math.max(first.frame.topMm, second.frame.topMm, reached.grip.yMm + 160) - 80
  const bottom = Math.min(first.frame.bottomMm, second.frame.bottomMm)
  const { leftMm, rightMm } = second.frame
  return (
    <svg
      className={styles.view}
      viewBox={`${leftMm} ${-top} ${rightMm - leftMm} ${top - bottom}`}
      preserveAspectRatio="xMidYMid meet"
      role="img"
      aria-label={`${before.bikeType.name} faint behind ${there.bikeType.name}, to scale`}
    >
      <g className={styles.before}>
        <BikeFrame scene={first} />
      </g>
      <BikeFrame scene={second} />
      {(['seat', 'grip'] as const).map((part) => (
        <g key={part} className={styles.contact}>
          <path d={`M${target[part].xMm} ${-target[part].yMm}L${reached[part].xMm} ${-reached[part].yMm}`} />
          <circle className={styles.reached} cx={reached[part].xMm} cy={-reached[part].yMm} r={15} />
          <circle className={styles.wanted} cx={target[part].xMm} cy={-target[part].yMm} r={30} />
        </g>
      ))}
    </svg>
  )
}
