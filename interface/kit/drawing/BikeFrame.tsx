import { drawn } from '../body/limb'
import type { BikeScene } from './sideView'
import styles from './sideView.module.css'

/** Floor, wheel, frame, posts, saddle, bars and crank: the bike without anyone on it. */
export function BikeFrame({ scene }: { scene: BikeScene }) {
  const floor = -scene.floorYMm
  const wheel = { x: 388, y: floor - 238, r: 212 }
  const [seatTop, seatFoot] = scene.seatTube
  const [barTop, barFoot] = scene.barTube
  const near = scene.pedal
  return (
    <g>
      <line className={styles.floor} x1={scene.frame.leftMm} x2={scene.frame.rightMm} y1={floor} y2={floor} />
      <circle className={styles.wheel} cx={wheel.x} cy={wheel.y} r={wheel.r} />
      <circle className={styles.hub} cx={wheel.x} cy={wheel.y} r={26} />
      <path
        className={styles.tube}
        d={
          `M-330 ${floor - 14}H${wheel.x + 160}M${drawn(seatFoot)}L-120 ${floor - 20}M` +
          `${drawn(seatFoot)}L${drawn(barFoot)}L${wheel.x + 40} ${floor - 20}M${drawn(barFoot)}L0 0`
        }
      />
      <path className={styles.post} d={`M${drawn(seatTop)}L${drawn(seatFoot)}`} />
      <path className={styles.post} d={`M${drawn(barTop)}L${drawn(barFoot)}`} />
      <path className={styles.bar} d={`M${drawn(barTop)}L${drawn(scene.grip)}`} />
      <path className={styles.saddle} d={saddlePath(scene)} />
      <circle className={styles.ring} r={74} />
      <path className={styles.crank} d={`M${drawn({ xMm: -near.xMm, yMm: -near.yMm })}L${drawn(near)}`} />
      <circle className={styles.axle} r={14} />
    </g>
  )
}

function saddlePath({ nose, tail, seat }: BikeScene): string {
  const y = -seat.yMm
  return (
    `M${tail.xMm} ${y - 8}Q${tail.xMm + 70} ${y + 6} ${seat.xMm} ${y}T${nose.xMm} ${y + 2}` +
    `q10 14 -6 22Q${seat.xMm + 50} ${y + 26} ${seat.xMm} ${y + 52}H${tail.xMm + 34}Q` +
    `${tail.xMm - 16} ${y + 40} ${tail.xMm} ${y - 8}Z`
  )
}
