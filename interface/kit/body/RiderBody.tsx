import type { Point } from '@/core/base/conventions'
import type { Posed } from '@/core/riders/kinematics/pose'
import { between, drawn, limbPath } from './limb'
import styles from './riderBody.module.css'

type Props = Readonly<{
  pose: Posed
  /** Null where the arm does not reach. */
  elbow: Point | null
  grip: Point
  pedalSurfaceMm: number
  /** Little is known of the body: it is drawn paler. */
  isGuess?: boolean
}>

/** The leg on the far side, behind the frame. */
export function FarLeg({ pose, pedalSurfaceMm }: Pick<Props, 'pose' | 'pedalSurfaceMm'>) {
  return (
    <g className={styles.far}>
      <path d={limbPath(pose.hip, pose.knee, 150, 96)} />
      <path d={limbPath(pose.knee, pose.ankle, 92, 56)} />
      <path d={shoePath(pose, pedalSurfaceMm)} />
    </g>
  )
}

/** A rider from the side in a pose, in the drawing's frame. */
export function RiderBody({ pose, elbow, grip, pedalSurfaceMm, isGuess = false }: Props) {
  const { hip, knee, ankle, shoulder } = pose
  const up = between(hip, shoulder, 1.24)
  const head = { xMm: up.xMm + 66, yMm: up.yMm + 88 }
  return (
    <g className={isGuess ? styles.guessed : undefined}>
      <path className={styles.skin} d={limbPath(shoulder, head, 84, 74)} />
      <ellipse
        className={styles.skin}
        cx={head.xMm}
        cy={-head.yMm}
        rx={76}
        ry={98}
        transform={`rotate(14 ${head.xMm} ${-head.yMm})`}
      />
      <path
        className={styles.hair}
        d={`M${head.xMm - 76} ${-head.yMm + 8}a80 100 14 0 1 128 -78q-36 30 -70 26q-14 34 -58 52Z`}
      />
      <path className={styles.kit} d={torsoPath(hip, shoulder)} />
      <path className={styles.skin} d={limbPath(knee, ankle, 98, 58)} />
      <path className={styles.shorts} d={limbPath(hip, knee, 178, 104)} />
      <path className={styles.shoe} d={shoePath(pose, pedalSurfaceMm)} />
      {elbow && (
        <>
          <path className={styles.skin} d={limbPath(elbow, grip, 64, 44)} />
          <path className={styles.skin} d={limbPath(shoulder, elbow, 84, 62)} />
          <path className={styles.kit} d={limbPath(shoulder, between(shoulder, elbow, 0.55), 104, 84)} />
        </>
      )}
    </g>
  )
}

/** Back gently rounded, belly flat: hip to shoulder. */
function torsoPath(hip: Point, shoulder: Point): string {
  const dx = shoulder.xMm - hip.xMm
  const dy = shoulder.yMm - hip.yMm
  const length = Math.hypot(dx, dy)
  const at = (along: number, behind: number): string =>
    drawn({ xMm: hip.xMm + dx * along - (dy / length) * behind, yMm: hip.yMm + dy * along + (dx / length) * behind })
  return (
    `M${at(-0.16, 78)}Q${at(0.45, 150)} ${at(1.02, 84)}Q${at(1.2, 20)} ${at(1.06, -58)}Q` +
    `${at(0.5, -104)} ${at(-0.04, -88)}Q${at(-0.24, 0)} ${at(-0.16, 78)}Z`
  )
}

/** Shoe from heel to toe: sole flat on the pedal's pitch, upper closing over the ankle. */
function shoePath({ ankle, pedal }: Posed, surfaceMm: number): string {
  const down = Math.hypot(ankle.xMm - pedal.xMm, ankle.yMm - pedal.yMm) || 1
  const behind = Math.sqrt(Math.max(0, down * down - (surfaceMm + 76) ** 2))
  const tilt = Math.atan2(ankle.yMm - pedal.yMm, ankle.xMm - pedal.xMm) - Math.atan2(surfaceMm + 76, -behind)
  const at = (ahead: number, above: number): string =>
    drawn({
      xMm: pedal.xMm + ahead * Math.cos(tilt) - above * Math.sin(tilt),
      yMm: pedal.yMm + ahead * Math.sin(tilt) + above * Math.cos(tilt),
    })
  const s = surfaceMm
  return (
    `M${at(-behind - 62, s)}L${at(88, s)}Q${at(106, s + 14)} ${at(84, s + 34)}Q` +
    `${at(20, s + 62)} ${at(-behind + 44, s + 104)}L${at(-behind - 40, s + 100)}Q` +
    `${at(-behind - 76, s + 50)} ${at(-behind - 62, s)}Z`
  )
}
