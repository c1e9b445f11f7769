'use client'
import { useMemo } from 'react'
import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import type { Marks, Point } from '@/core/base/conventions'
import type { PosteriorMeanRider } from '@/core/setups/recommend/recommend'
import type { Posed } from '@/core/riders/kinematics/pose'
import type { UnitSystem } from '@/core/base/length'
import { formatRoughLength } from '@/core/messages/words/phrases'
import { BikeFrame } from './BikeFrame'
import { between, drawn, limbPath } from './limb'
import { sideScene, type SideScene } from './sideView'
import styles from './sideView.module.css'
import { useGliding } from './useGliding'

type Props = Readonly<{
  lengths: UnitSystem
  bikeType: BikeType
  bike: Bike
  marks: Marks
  rider: PosteriorMeanRider
  /** What is written into the drawing. */
  show: 'knee' | 'plumb' | 'bars' | 'nothing'
  /**
   * The knee's angle at the bottom: as read here, or the posterior with its standard deviation; a rider without
   * evidence is drawn as a guess.
   */
  knee: Readonly<{ deg: number; sdDeg: number }>
  /** The plumb offset, mm, as read here or as believed. */
  plumbMm: number
  windowText: string
}>

const LEVEL_DEG = 90

/** Rider and bike from the side, to scale, computed at the marks shown; it glides when a mark moves. */
export function SideView({ lengths, bikeType, bike, marks, rider, show, knee, plumbMm, windowText }: Props) {
  const target = useMemo(
    () => sideScene(bikeType, bike, marks, rider, show === 'plumb' ? LEVEL_DEG : undefined),
    [bikeType, bike, marks, rider, show],
  )
  const scene = useGliding(target)
  const { frame } = scene
  const box = `${frame.leftMm} ${-frame.topMm} ${frame.rightMm - frame.leftMm} ${frame.topMm - frame.bottomMm}`
  return (
    <svg
      className={styles.view}
      viewBox={box}
      preserveAspectRatio="xMidYMax meet"
      role="img"
      aria-label={spoken(target, show, knee, plumbMm)}
    >
      {scene.far.outcome === 'posed' && <FarLeg pose={scene.far} scene={scene} />}
      <BikeFrame scene={scene} />
      {scene.near.outcome === 'posed' ? (
        <g className={knee.sdDeg > 8 ? styles.guessed : undefined}>
          <Body pose={scene.near} elbow={scene.nearElbow} scene={scene} />
        </g>
      ) : (
        <text className={styles.note} x={scene.seat.xMm - 250} y={-scene.seat.yMm - 120}>
          {scene.near.limb === 'leg' ? 'The leg does not reach here' : 'The arm does not reach here'}
        </text>
      )}
      {scene.near.outcome === 'posed' && show === 'knee' && (
        <Knee pose={scene.near} angle={knee} windowText={windowText} />
      )}
      {scene.near.outcome === 'posed' && show === 'plumb' && (
        <Plumb pose={scene.near} mm={Math.round(plumbMm)} patellaMm={rider.patellaAheadMm} />
      )}
      {show === 'bars' && <Bars scene={scene} lengths={lengths} />}
    </svg>
  )
}

function FarLeg({ pose, scene }: { pose: Posed; scene: SideScene }) {
  return (
    <g className={styles.far}>
      <path d={limbPath(pose.hip, pose.knee, 150, 96)} />
      <path d={limbPath(pose.knee, pose.ankle, 92, 56)} />
      <path d={shoePath(pose, scene.pedalSurfaceMm)} />
    </g>
  )
}

function Body({ pose, elbow, scene }: { pose: Posed; elbow: Point | null; scene: SideScene }) {
  const { hip, knee, ankle, shoulder } = pose
  const up = between(hip, shoulder, 1.24)
  const head = { xMm: up.xMm + 66, yMm: up.yMm + 88 }
  return (
    <g>
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
      <path className={styles.shoe} d={shoePath(pose, scene.pedalSurfaceMm)} />
      {elbow && (
        <>
          <path className={styles.skin} d={limbPath(elbow, scene.grip, 64, 44)} />
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

function Knee({ pose, angle, windowText }: { pose: Posed; angle: Props['knee']; windowText: string }) {
  const { hip, knee, ankle } = pose
  const on = between(hip, knee, 1.42)
  return (
    <g>
      <path className={styles.sight} d={`M${drawn(hip)}L${drawn(knee)}L${drawn(ankle)}`} />
      <path className={styles.extension} d={`M${drawn(knee)}L${drawn(on)}`} />
      {[hip, knee, ankle].map((p, i) => (
        <circle key={i} className={styles.joint} cx={p.xMm} cy={-p.yMm} r={15} />
      ))}
      <text className={styles.figure} x={knee.xMm + 112} y={-knee.yMm + 10}>
        {formatKnee(angle)}
      </text>
      <text className={styles.note} x={knee.xMm + 114} y={-knee.yMm + 80}>
        {windowText}
      </text>
    </g>
  )
}

function Plumb({ pose, mm, patellaMm }: { pose: Posed; mm: number; patellaMm: number }) {
  const x = pose.knee.xMm + patellaMm
  return (
    <g>
      <path className={styles.sight} d={`M${x} ${-pose.knee.yMm}V${-pose.pedal.yMm + 130}`} />
      <path className={styles.joint} d={`M${x - 12} ${-pose.pedal.yMm + 128}h24l-12 34Z`} />
      <circle className={styles.joint} cx={pose.pedal.xMm} cy={-pose.pedal.yMm} r={15} />
      <text className={styles.figure} x={x + 40} y={-pose.pedal.yMm + 170}>
        {Math.abs(mm)} mm
      </text>
      <text className={styles.note} x={x + 42} y={-pose.pedal.yMm + 238}>
        {mm >= 0 ? 'knee ahead' : 'knee behind'}
      </text>
    </g>
  )
}

function Bars({ scene: { seat, grip }, lengths }: { scene: SideScene; lengths: UnitSystem }) {
  const mm = grip.yMm - seat.yMm
  const size = formatRoughLength(mm, lengths)
  const x = grip.xMm + 60
  return (
    <g>
      <path className={styles.sight} d={`M${seat.xMm} ${-seat.yMm}H${x + 20}M${x} ${-grip.yMm}V${-seat.yMm}`} />
      <text className={styles.figure} x={x + 18} y={-(grip.yMm + seat.yMm) / 2 + 20}>
        {size ?? 'level'}
      </text>
      <text className={styles.note} x={x + 20} y={-(grip.yMm + seat.yMm) / 2 + 88}>
        {size === null ? '' : mm > 0 ? 'above' : 'below'}
      </text>
    </g>
  )
}

/** "38°", "about 31°", or that the leg would be locked straight. */
function formatKnee({ deg, sdDeg }: Props['knee']): string {
  if (deg < 1) return 'locked'
  return `${sdDeg > 4 ? 'about ' : ''}${Math.round(deg)}°`
}

function spoken({ near }: SideScene, show: Props['show'], knee: Props['knee'], plumbMm: number): string {
  if (near.outcome === 'unreachable')
    return `Side view: the ${near.limb} does not reach, ${Math.round(near.missingMm)} mm are missing.`
  if (show === 'plumb')
    return (
      `Side view with the cranks level: knee ${Math.round(Math.abs(plumbMm))} mm ` +
      `${plumbMm >= 0 ? 'ahead of' : 'behind'} the pedal axle.`
    )
  return `Side view: knee bend at the bottom ${formatKnee(knee)}, trunk at ${Math.round(near.trunkAngleDeg)} degrees.`
}
