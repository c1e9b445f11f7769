import { bottomCrankDeg, type Bike, type BikeType } from '../../bikes/bike/bike'
import { crankMmAt, isPlain, onType, standingAt, type PlainType } from '../../bikes/bike/standing'
import { axisPositions, contactPoints, type Lengths } from '../../bikes/bike/contactPoints'
import { AXES, type AxisName, type Label, type Marks, type Point } from '../../base/conventions'
import type { Evidence } from '../../riders/evidence/registry'
import { offsetPoint } from '../../base/geometry'
import { bottomFlexionDeg, prepareLeg } from '../../riders/kinematics/leg'
import { advise } from '../recommend/recommend'
import { DEFAULT_SOLE_MM } from '../../riders/rider/anthropometry'
import { bodyFromScores, PRIOR_PARTS, priorFor, priorVectorOf } from '../../riders/rider/prior'
import { positionsOf, type ScalePosition } from '../../bikes/scale/scale'
import { inWindow, schoolOf, type School } from '../../base/school/school'
import { carriedBest } from './carriedFurther'
import { axisPairOf, slideAtMark, solvePair, type AxisSolution } from './axisSolve'
import { farthestPedalMm, pointsFromLengths, seatHeightFor, type Pedals, type TouchPoints } from './contactGeometry'

/** Numbers of a type, or of any bike by the tape's four lengths. */
export type Source =
  | Readonly<{ bikeType: BikeType; bike?: Bike; marks: Marks }>
  | Readonly<{ lengths: Lengths; crankMm: number; noseAheadMm: number; pedalSurfaceMm?: number }>
export type Target = Readonly<{ bikeType: BikeType; bike?: Bike }>

/** An axis that ends too early: the target, the nearest mark, and the missing length, mm along it. */
export type OutOfRange = Readonly<{ axis: AxisName; wantedMm: number; nearest: Label; missingMm: number }>

export type Translation = Readonly<{
  marks: Marks
  /** What the tape would read there, less what would be the same as before. */
  residueMm: Lengths
  /** Change of the bar height relative to the saddle, mm; plus is higher. */
  barsAgainstSaddleMm: number
  outOfRange: readonly OutOfRange[]
  /** Axes the source has no mark for: taken at 0 mm. */
  assumed: readonly AxisName[]
  /** Knee at the bottom before, degrees: as believed of this rider, else 30. */
  kneeBeforeDeg: number
  /** By how much it bends more (plus) there. */
  kneeChangeDeg: number
  /** Contact points before, shifted to the target's crank, and on the target. */
  contact: Readonly<{ before: TouchPoints; wanted: TouchPoints; there: TouchPoints }>
  /** Marks chosen among their neighbours by the rider's own checks. */
  byBelief: readonly AxisName[]
}>

export type CarriedMarks = Omit<Translation, 'kneeBeforeDeg' | 'kneeChangeDeg'>

type TranslationInputs = Readonly<{
  from: Source
  to: Target
  school?: Partial<School>
  evidence?: readonly Evidence[]
  /** Intended shift of saddle and bars, mm: forward and up are plus. */
  shift?: Point
}>

/** Numbers on another bike with what that makes of the knee. */
export function translateMarks(inputs: TranslationInputs): Translation {
  const { from, to, school, evidence } = inputs
  const carried = carryMarks(inputs)
  const { before, there } = carried.contact
  const kneeBeforeDeg = evidence && 'bikeType' in from ? posteriorMeanKneeDeg(from, school, evidence) : USUAL_KNEE_DEG
  return { ...carried, kneeBeforeDeg, kneeChangeDeg: kneeChangeDeg(before, there, to.bikeType, kneeBeforeDeg) }
}

/**
 * Numbers carried to another bike, its further adjustments where the rider feels least of the way there: the seat point
 * has the same distance to the pedal at its farthest and the same place behind the axle, the grip its place from the
 * seat point. Axes are solved together, then each takes its nearest mark; with the rider's evidence, the neighbouring
 * marks of the saddle are compared by the chance of their checks. What a type lacks or cannot reach is returned as a
 * remainder, mm.
 */
export function carryMarks(inputs: TranslationInputs): CarriedMarks {
  const { bikeType, bike } = inputs.to
  if (isPlain(bikeType)) return carryToPlain(inputs, { bikeType, bike })
  const crankMm = 'lengths' in inputs.from ? inputs.from.crankMm : crankMmAt(inputs.from.bikeType, inputs.from.marks)
  const carriedAt = (further: Marks) => carryToPlain(inputs, standingAt(bikeType, bike, further))
  const { further, carried } = carriedBest(bikeType, crankMm, carriedAt)
  return {
    ...carried,
    marks: onType(bikeType, carried.marks, further),
    outOfRange: carried.outOfRange.filter(({ axis }) => bikeType.axes[axis]),
    byBelief: carried.byBelief.filter((axis) => bikeType.axes[axis]),
  }
}

function carryToPlain(
  { from, school, evidence, shift }: TranslationInputs,
  to: Readonly<{ bikeType: PlainType; bike?: Bike | undefined }>,
): CarriedMarks {
  const before = translateContacts(touchPointsOf(from, to.bikeType), shift)
  const pedals: Pedals = to.bikeType
  const reachMm = farthestPedalMm(before.seat, before)
  const seatPair = axisPairOf(to.bikeType, to.bike, 'seat')
  const saddle = solvePair(seatPair, before.seat.xMm, (xMm) => seatHeightFor(xMm, reachMm, pedals))
  const gripFrom = (seat: Point): Point => ({
    xMm: seat.xMm + before.grip.xMm - before.seat.xMm,
    yMm: seat.yMm + before.grip.yMm - before.seat.yMm,
  })
  const chosen = evidence && 'bikeType' in from ? marksByPosterior(from, to, saddle, { school, evidence }) : {}
  const saddleMarks: Marks = { ...nearestOf(saddle), ...chosen }
  // The bars follow the saddle's actual place after rounding; the way home uses the stored original.
  const grip = gripFrom(contactPoints(to.bikeType, to.bike, axisPositions(to.bikeType, saddleMarks)).seat)
  const gripPair = axisPairOf(to.bikeType, to.bike, 'grip')
  const bars = slideAtMark(
    gripPair,
    solvePair(gripPair, grip.xMm, () => grip.yMm),
    grip.xMm,
  )
  const solved = [...saddle, ...bars]
  const nearest = nearestOf(solved)
  const marks: Marks = { ...nearest, ...chosen }
  const there = contactPoints(to.bikeType, to.bike, axisPositions(to.bikeType, marks))
  const seat: Point = { xMm: before.seat.xMm, yMm: seatHeightFor(before.seat.xMm, reachMm, pedals) }
  const target: TouchPoints = { seat, grip: gripFrom(seat), ...crankOf(pedals) }
  return {
    marks,
    residueMm: {
      saddleHeightMm: there.lengths.saddleHeightMm - Math.hypot(seat.xMm, seat.yMm),
      setbackMm: seat.xMm - there.seat.xMm,
      reachMm: there.lengths.reachMm - (target.grip.xMm - seat.xMm),
      stackMm: there.grip.yMm - target.grip.yMm,
    },
    barsAgainstSaddleMm: there.grip.yMm - there.seat.yMm - (before.grip.yMm - before.seat.yMm),
    outOfRange: solved.filter((one) => one.missingMm > 0).map(outOfRange),
    assumed:
      'bikeType' in from ? AXES.filter((axis) => from.bikeType.axes[axis] && from.marks[axis] === undefined) : [],
    contact: { before, wanted: target, there: { seat: there.seat, grip: there.grip, ...crankOf(pedals) } },
    byBelief: AXES.filter((axis) => chosen[axis] !== undefined && chosen[axis] !== nearest[axis]),
  }
}

const nearestOf = (solved: readonly AxisSolution[]): Marks =>
  Object.fromEntries(solved.map((one) => [one.axis, one.nearest.label]))

const translateContacts = (points: TouchPoints, by: Point = { xMm: 0, yMm: 0 }): TouchPoints => ({
  ...points,
  seat: offsetPoint(points.seat, by.xMm, by.yMm),
  grip: offsetPoint(points.grip, by.xMm, by.yMm),
})

const crankOf = ({ crankMm, pedalSurfaceMm }: Pedals): Pedals => ({ crankMm, pedalSurfaceMm })

const outOfRange = ({ axis, wantedMm, nearest, missingMm }: AxisSolution): OutOfRange => ({
  axis,
  wantedMm,
  nearest: nearest.label,
  missingMm,
})

/** A pedal without a description gets the height of the target's. */
function touchPointsOf(from: Source, target: BikeType): TouchPoints {
  if ('lengths' in from) {
    const { lengths, crankMm, noseAheadMm, pedalSurfaceMm = target.pedalSurfaceMm } = from
    return { ...pointsFromLengths(lengths, noseAheadMm), crankMm, pedalSurfaceMm }
  }
  const { bikeType, bike, marks } = from
  const { seat, grip } = contactPoints(bikeType, bike, axisPositions(bikeType, marks))
  return { seat, grip, crankMm: crankMmAt(bikeType, marks), pedalSurfaceMm: bikeType.pedalSurfaceMm }
}

/** Sample size that resolves neighbouring marks. */
const SAMPLES = 1500

/**
 * The nearest marks of the saddle, unless the rider's knee is believed outside of its window there and a neighbour is
 * right clearly more often by all that was read on the bike they come from.
 */
function marksByPosterior(
  from: Extract<Source, { bikeType: BikeType }>,
  { bikeType, bike }: Target,
  saddle: readonly AxisSolution[],
  { school, evidence }: Readonly<{ school?: Partial<School>; evidence: readonly Evidence[] }>,
): Marks {
  const history = [{ bikeType: from.bikeType, bike: from.bike, evidence, agoDays: 0 }]
  const riderRows = evidence.filter(({ kind }) => kind === 'rider')
  const adviceAt = (at: Marks) =>
    advise({
      bikeType,
      bike,
      school,
      history,
      evidence: [...riderRows, { kind: 'set', at, meant: 'wish' }],
      samples: SAMPLES,
    })
  const [heights, slides] = saddle.map((one) => neighboursOf(bikeType, one))
  const nearest = nearestOf(saddle)
  const here = adviceAt(nearest)
  if (inWindow(here.belief.kneeFlexionDeg.mean, schoolOf(school).kneeWindowDeg)) return {}
  const pairs = heights.flatMap((height) =>
    slides.map((slide) => {
      const marks = { seatHeight: height.label, seatSlide: slide.label }
      return { marks, chance: adviceAt(marks).chance }
    }),
  )
  const best = pairs.reduce((a, b) => (b.chance > a.chance ? b : a))
  return best.chance - here.chance >= MIN_CHANCE_GAIN ? best.marks : {}
}
/** A neighbour must be right so much more often to be taken in place of the nearest. */
const MIN_CHANCE_GAIN = 0.1

/** The marks on either side of a position; one mark where it coincides with a mark or lies beyond the end. */
function neighboursOf(bikeType: BikeType, { axis, wantedMm, nearest }: AxisSolution): readonly ScalePosition[] {
  const sorted = [...positionsOf(bikeType.axes[axis]!.scale)].sort((a, b) => a.mm - b.mm)
  const below = sorted.findLast(({ mm }) => mm <= wantedMm)
  const above = sorted.find(({ mm }) => mm >= wantedMm)
  const found = [below, above].filter((one): one is ScalePosition => one !== undefined)
  return [...new Set(found.length > 0 ? found : [nearest])]
}

/** Without evidence of the rider: the middle of the default window. */
const USUAL_KNEE_DEG = 30

/** What is believed of the knee at the marks that are translated, degrees. */
function posteriorMeanKneeDeg(
  { bikeType, bike, marks }: Extract<Source, { bikeType: BikeType }>,
  school: Partial<School> | undefined,
  evidence: readonly Evidence[],
): number {
  const here: Evidence = { kind: 'set', at: marks, meant: 'wish' }
  const { belief } = advise({ bikeType, bike, school, evidence: [...evidence, here], samples: SAMPLES })
  return belief.kneeFlexionDeg.mean
}

type Saddle = Pick<TouchPoints, 'seat' | 'crankMm' | 'pedalSurfaceMm'>

/**
 * By how much more the knee at the bottom bends with the saddle `there`, degrees: of the mean body of any size
 * bends it by `beforeDeg` with the saddle `before`.
 */
export function kneeChangeDeg(before: Saddle, there: Saddle, target: BikeType, beforeDeg: number): number {
  const bottomDeg = bottomCrankDeg(target)
  const bend = (statureMm: number, at: Saddle) =>
    bottomFlexionDeg(prepareLeg(meanBody(statureMm), DEFAULT_SOLE_MM, at, bottomDeg), at.seat)
  const statureMm = statureBending(beforeDeg, (mm) => bend(mm, before))
  return bend(statureMm, there) - bend(statureMm, before)
}

/** The stature at which a knee that bends more the larger the body bends by `deg`, mm. */
export function statureBending(deg: number, bend: (statureMm: number) => number): number {
  let [low, high] = [800, 3000]
  for (let halving = 0; halving < 40; halving++) {
    const middle = (low + high) / 2
    if (bend(middle) < deg) low = middle
    else high = middle
  }
  return low
}

export const meanBody = (statureMm: number) =>
  bodyFromScores(
    priorVectorOf(priorFor('natural', { statureMm: { mean: statureMm, sd: 0 } })),
    new Float64Array(PRIOR_PARTS.length),
  )
