import { columnOf, type Columns } from '../../base/columns'
import { unitVector } from '../../base/geometry'
import { prepareLegs, shorterLegDeg, type Legs } from '../kinematics/leg'
import { prepareUpperBodies, type UpperBodies } from '../kinematics/upperBody'
import { bottomCrankDeg, type BikeType } from '../../bikes/bike/bike'
import { SIDE_HALF_DIFFERENCE_SD_DEG } from '../../base/measurementNoise'
import { drawFrom, type NormalScores } from './normalScores'
import { bodiesFromScores, PRIOR_PARTS, type Bodies, type PriorVector } from '../rider/prior'

/**
 * What is under the foot: the sole, and the pedal's surface above its axle, mm; with the length of the cranks where the
 * type leaves a choice.
 */
export type Footing = Readonly<{ soleMm: number; pedalSurfaceMm: number; crankMm?: number }>

/** Imagined riders on this bike, a column per quantity. */
export type Particles = Readonly<{
  count: number
  body: Bodies
  /** Their legs in the sole worn now. */
  legs: Legs
  /** Their legs in another sole or on the pedal's other side; worked out once for each. */
  legsOn: (footing: Footing) => Legs
  /** Their trunks and arms, in the sole worn now. */
  upperBodies: () => UpperBodies
  /** Offset of this bike's saddle from its marks. */
  shift: Columns<'xMm' | 'yMm'>
  /** Half of left minus right knee flexion, degrees. */
  sideDeg: Float64Array
}>

/**
 * The bike, what is under the rider's foot, and the distributions of the samples. `sdMm` is the standard deviation of
 * the saddle offset for this rider. `carriedPrior` is the carried prior of this rider over the standard scores; without
 * it they are independent.
 */
export type ModelInputs = Readonly<{
  bikeType: BikeType
  sdMm: Readonly<{ seatHeight: number; seatSlide: number }>
  prior: PriorVector
  footing: Footing
  carriedPrior?: NormalScores
  /** A measured shorter leg: its knee bends less. */
  shorterLeg?: ShorterLeg
}>

export type ShorterLeg = Readonly<{ side: 'left' | 'right'; mm: number }>

/**
 * Standard scores a sample is made of: one per part of the prior, one per seat axis, and one for left against right.
 */
export const SCORE_COUNT = PRIOR_PARTS.length + 3
/** Scores of the saddle offset: of the machine and the set-up, not of the rider. */
export const SHIFT_SCORES: readonly number[] = [PRIOR_PARTS.length, PRIOR_PARTS.length + 1]

/** `count` samples from `SCORE_COUNT` columns of independent standard scores. */
export function particlesFromScores(
  { bikeType, sdMm, prior, footing, carriedPrior, shorterLeg }: ModelInputs,
  independent: readonly Float64Array[],
  count: number,
): Particles {
  const scores = carriedPrior ? drawFrom(carriedPrior, independent, count) : independent
  const [higher, farther, sideways] = scores.slice(PRIOR_PARTS.length)
  const body = bodiesFromScores(prior, scores, count)
  const up = unitVector(bikeType.axes.seatHeight.directionDeg)
  const along = unitVector(bikeType.axes.seatSlide?.directionDeg ?? 0)
  const shift = {
    xMm: columnOf(count, (i) => up.x * sdMm.seatHeight * higher[i] + along.x * sdMm.seatSlide * farther[i]),
    yMm: columnOf(count, (i) => up.y * sdMm.seatHeight * higher[i] + along.y * sdMm.seatSlide * farther[i]),
  }
  const sideDeg = columnOf(count, (i) => SIDE_HALF_DIFFERENCE_SD_DEG * sideways[i])
  if (shorterLeg) {
    const halfMm = ((shorterLeg.side === 'left' ? -1 : 1) * shorterLeg.mm) / 2
    for (let i = 0; i < count; i++) sideDeg[i] += shorterLegDeg(halfMm, body.thighMm[i], body.shankMm[i])
  }
  const byFooting = new Map<string, Legs>()
  const legsOn = ({ soleMm, pedalSurfaceMm, crankMm = bikeType.crankMm }: Footing): Legs => {
    const crank = { crankMm, pedalSurfaceMm }
    const key = `${soleMm + pedalSurfaceMm} ${crankMm}`
    const prepared = byFooting.get(key) ?? prepareLegs(body, soleMm, crank, bottomCrankDeg(bikeType), shift)
    byFooting.set(key, prepared)
    return prepared
  }
  const legs = legsOn(footing)
  let upper: UpperBodies | undefined
  const upperBodies = () => (upper ??= prepareUpperBodies(body, legs))
  return { count, body, shift, sideDeg, legsOn, upperBodies, legs }
}
