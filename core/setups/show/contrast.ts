import { bottomCrankDeg, type Bike, type BikeType } from '../../bikes/bike/bike'
import { crankMmAt } from '../../bikes/bike/standing'
import { contactPoints, axisPositions } from '../../bikes/bike/contactPoints'
import type { Marks } from '../../base/conventions'
import { offsetPoint, unitVector } from '../../base/geometry'
import { poseAt, type Posed, type Rider } from '../../riders/kinematics/pose'

/** What is shown beside what suits: seat height, reach, bars, and the foot at the bottom. */
export const CONTRASTS = ['height', 'reach', 'bars', 'foot'] as const
export type ContrastName = (typeof CONTRASTS)[number]

/** Which of the figures beside each other. */
export type ContrastSide = 'less' | 'yours' | 'more'

/**
 * One figure: the type with its contact points moved, the rider as they then sit, and the pose at the bottom of the
 * stroke. `byMm`: how far the seat (along its post) or the grip (level, or straight up) is moved.
 */
export type ContrastFigure = Readonly<{
  side: ContrastSide
  bikeType: BikeType
  rider: Rider
  pose: Posed
  byMm: number
}>
export type Contrast = Readonly<{ name: ContrastName; figures: readonly ContrastFigure[] }>

/** Clearly wrong at a look, mm. Ours. */
const SEAT_MM = Object.freeze({ less: -55, more: 35 })
const REACH_MM = 85
const BARS_MM = 60
/** On a seat too high the foot reaches for the pedal, degrees more; ours. */
const REACHING_FOOT_DEG = 14
/** Elbows where the bars are too near, and too far, degrees. Ours. */
const ELBOW_DEG = Object.freeze({ near: 40, far: 4 })
/** Tried again by so much less where a limb does not reach. */
const LESS = 0.6

/**
 * A rider on a type at these marks beside the same rider where it does not suit: too low and too high, too near and too
 * far, bars low and high, foot level and natural. A contrast that cannot be posed with this body is left out; none
 * where the rider cannot be posed at the marks themselves.
 */
export function contrasts(bikeType: BikeType, bike: Bike, marks: Marks, rider: Rider): Contrast[] {
  const figure = (side: ContrastSide, type: BikeType, as: Rider, byMm: number): ContrastFigure | null => {
    const { seat, grip } = contactPoints(type, bike, axisPositions(type, marks))
    const crank = { crankMm: crankMmAt(type, marks), pedalSurfaceMm: type.pedalSurfaceMm }
    const pose = poseAt(as, { seat, grip }, crank, bottomCrankDeg(type))
    return pose.outcome === 'posed' ? { side, bikeType: type, rider: as, pose, byMm } : null
  }
  /** As far as asked for, or less where a limb does not reach. */
  const moved = (side: ContrastSide, mm: number, as: Rider, move: (mm: number) => BikeType): ContrastFigure | null => {
    for (let byMm = mm; Math.abs(byMm) >= 10; byMm *= LESS) {
      const found = figure(side, move(byMm), as, byMm)
      if (found) return found
    }
    return null
  }
  const yours = figure('yours', bikeType, rider, 0)
  if (!yours) return []
  const up = unitVector(bikeType.axes.seatHeight.directionDeg)
  const seatBy = (mm: number) => withSeat(bikeType, up.x * mm, up.y * mm)
  const gripBy = (xMm: number, yMm: number) => withGrip(bikeType, xMm, yMm)
  const found: Record<ContrastName, readonly (ContrastFigure | null)[]> = {
    height: [
      moved('less', SEAT_MM.less, rider, seatBy),
      yours,
      moved('more', SEAT_MM.more, withBottomPitch(rider, bottomPitchDeg(rider) + REACHING_FOOT_DEG), seatBy),
    ],
    reach: [
      moved('less', -REACH_MM, { ...rider, elbowFlexionDeg: ELBOW_DEG.near }, (mm) => gripBy(mm, 0)),
      yours,
      moved('more', REACH_MM, { ...rider, elbowFlexionDeg: ELBOW_DEG.far }, (mm) => gripBy(mm, 0)),
    ],
    bars: [moved('less', -BARS_MM, rider, (mm) => gripBy(0, mm)), moved('more', BARS_MM, rider, (mm) => gripBy(0, mm))],
    foot: [figure('less', bikeType, withBottomPitch(rider, 0), 0), figure('yours', bikeType, rider, 0)],
  }
  return CONTRASTS.flatMap((name) => {
    const figures = found[name].filter((one) => one !== null)
    return figures.length === found[name].length ? [{ name, figures }] : []
  })
}

const withSeat = (type: BikeType, xMm: number, yMm: number): BikeType => ({
  ...type,
  seatOrigin: offsetPoint(type.seatOrigin, xMm, yMm),
})
const withGrip = (type: BikeType, xMm: number, yMm: number): BikeType => ({
  ...type,
  gripOrigin: offsetPoint(type.gripOrigin, xMm, yMm),
})

/** The foot's pitch at the bottom of the stroke, degrees, heel up plus. */
const bottomPitchDeg = ({ footPitchDeg: pitch }: Rider): number => (typeof pitch === 'number' ? pitch : pitch.bottom)

/** The same rider with another pitch of the foot at the bottom of the stroke. */
const withBottomPitch = (rider: Rider, bottom: number): Rider => ({
  ...rider,
  footPitchDeg:
    typeof rider.footPitchDeg === 'number'
      ? { top: rider.footPitchDeg, forward: rider.footPitchDeg, bottom }
      : { ...rider.footPitchDeg, bottom },
})
