import type { BikeType } from '@/core/bikes/bike/bike'
import type { BikeEquipment } from '@/core/bikes/bike/equipment'
import type { Marks, Point } from '@/core/base/conventions'
import { tourOf, type TourPart } from '@/core/messages/bikes/tour'
import { BikeFrame } from '../../kit/drawing/BikeFrame'
import { bikeScene, type BikeScene } from '../../kit/drawing/sideView'
import { between } from '../../kit/body/limb'
import styles from './show.module.css'

type Props = Readonly<{ bikeType: BikeType; closing: BikeEquipment['closing']; marks: Marks }>

/** The parts of the studio's own type for a newcomer: numbered in the drawing, named in its labels. */
export function BikeTour({ bikeType, closing, marks }: Props) {
  const parts = tourOf(bikeType, closing)
  const scene = bikeScene(bikeType, {}, marks)
  const { frame, grip } = scene
  const topMm = Math.max(frame.topMm - 130, grip.yMm + 190)
  return (
    <div className={styles.tour}>
      <svg
        viewBox={`${frame.leftMm} ${-topMm} ${frame.rightMm - frame.leftMm} ${topMm - frame.bottomMm}`}
        aria-hidden="true"
      >
        <BikeFrame scene={scene} />
        {parts.map(({ at }, i) => {
          const { xMm, yMm } = placeOf(at, scene)
          return (
            <g key={at}>
              <circle className={styles.badge} cx={xMm} cy={-yMm} r={46} />
              <text className={styles.number} x={xMm} y={-yMm + 22}>
                {i + 1}
              </text>
            </g>
          )
        })}
      </svg>
      <ol className={styles.parts}>
        {parts.map(({ at, name, text }, i) => (
          <li key={at}>
            <i aria-hidden="true">{i + 1}</i>
            <div>
              <b>{name}</b>
              <span>{text}</span>
            </div>
          </li>
        ))}
      </ol>
    </div>
  )
}

/** Where the drawing has a part; badges stand apart from each other. */
function placeOf(at: TourPart['at'], { seat, tail, grip, seatTube, barTube, pedal, floorYMm }: BikeScene): Point {
  switch (at) {
    case 'seatHeight':
      return between(seatTube[0], seatTube[1], 0.55)
    case 'seatSlide':
      return { xMm: tail.xMm + 40, yMm: seat.yMm + 70 }
    case 'barHeight':
      return between(barTube[0], barTube[1], 0.55)
    case 'barSlide':
      return { xMm: grip.xMm + 30, yMm: grip.yMm + 80 }
    case 'frameHeight':
    case 'frameSlide':
      return { xMm: between(seatTube[0], barTube[0], 0.5).xMm, yMm: seatTube[0].yMm - 60 }
    case 'seatExtra':
      return { xMm: seat.xMm - 20, yMm: seat.yMm + 130 }
    case 'barExtra':
    case 'barTurn':
      return { xMm: grip.xMm - 60, yMm: grip.yMm + 140 }
    case 'saddleTilt':
      return { xMm: seat.xMm + 120, yMm: seat.yMm + 120 }
    case 'crankLength':
      return { xMm: 0, yMm: 70 }
    case 'pedal':
      return { xMm: pedal.xMm + 70, yMm: pedal.yMm - 10 }
    case 'wheel':
      return { xMm: 388, yMm: floorYMm + 238 + 110 }
  }
}
