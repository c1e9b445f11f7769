'use client'
import { useMemo } from 'react'
import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import type { Marks } from '@/core/base/conventions'
import type { PosteriorMeanRider } from '@/core/setups/recommend/recommend'
import type { Posed } from '@/core/riders/kinematics/pose'
import type { UnitSystem } from '@/core/base/length'
import { formatRoughLength } from '@/core/messages/words/phrases'
import { BikeFrame } from './BikeFrame'
import { between, drawn } from '../body/limb'
import { FarLeg, RiderBody } from '../body/RiderBody'
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
      {scene.far.outcome === 'posed' && <FarLeg pose={scene.far} pedalSurfaceMm={scene.pedalSurfaceMm} />}
      <BikeFrame scene={scene} />
      {scene.near.outcome === 'posed' ? (
        <RiderBody
          pose={scene.near}
          elbow={scene.nearElbow}
          grip={scene.grip}
          pedalSurfaceMm={scene.pedalSurfaceMm}
          isGuess={knee.sdDeg > 8}
        />
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
