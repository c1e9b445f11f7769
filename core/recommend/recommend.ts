import { momentsOf, type Moments } from '../inference/moments'
import { samplePosterior, adaptProposal, type Posterior } from '../inference/posterior'
import { cachedProposal } from '../inference/proposalCache'
import { combineRepeats } from '../inference/repeatedReadings'
import type { ModelInputs } from '../inference/particles'
import { axisPositions, contactPoints } from '../bike/contactPoints'
import { type AxisName, type Marks } from '../conventions'
import { isSaddleCheck, needsMarks } from '../evidence/evidence'
import { likelihoodOf, type Evidence } from '../evidence/registry'
import type { Rider } from '../kinematics/pose'
import { DEFAULT_SOLE_MM, SOFT_ELBOW_DEG, TOP_PITCH_DEG } from '../rider/anthropometry'
import { priorFor, priorVectorOf, type Bodies } from '../rider/prior'
import { spacingMm, positionsOf, type ScalePosition } from '../scale/scale'
import { schoolOf, type School } from '../school/school'
import { adviseBars, positionAt, type BarAdvice } from './bars'
import { detectAnomalies, repeatAnomalies, type Anomaly } from './anomalies'
import { lastReadings, type LastReadings } from './lastReadings'
import { nextStep } from './nextStep'
import type { RecommendRequest, MarkChance, Next } from './request'
import { saddlePositionAt, seatAt, startPosition, type SaddlePosition, type SaddleSearch } from './saddleSearch'
import { marksHistory, defaultSlide } from './marksHistory'
import { targetProbabilities } from './targetProbabilities'

/** The mean rider of a belief, ready to be posed, with the spreads that matter to the drawing. */
export type PosteriorMeanRider = Rider & Readonly<{ statureMm: number }>

/** The answer in codes and figures; `words` makes the sentences. */
export type Advice = Readonly<{
  chances: Readonly<Partial<Record<AxisName, readonly MarkChance[]>>>
  next: Next
  bars: BarAdvice
  /** The marks everything is computed at: as they stand, or as proposed at the start. */
  marks: Marks
  belief: Readonly<{
    kneeFlexionDeg: Moments
    plumbOffsetMm: Moments
    /** Hip joint to floor, barefoot. */
    legMm: Moments
    statureMm: Moments
    effectiveSamples: number
    rider: PosteriorMeanRider
  }>
  anomalies: readonly Anomaly[]
  readings: LastReadings
  school: School
}>

/**
 * The next best step for a rider on a bike, from all evidence in time order. Pure: the same request and seed give the
 * same answer. Expects a request that has passed `dispatch` (labels exist, every check knows its marks).
 */
export function recommend(request: RecommendRequest): Advice {
  const { bikeType, bike, evidence } = request
  const school = schoolOf(request.school)
  const history = marksHistory(bikeType, evidence)
  const soles = solesOf(evidence)
  const soleMm = soles.at(-1) ?? DEFAULT_SOLE_MM
  const inputs: ModelInputs = { bikeType, bike, prior: priorVectorOf(priorFor(school.foot, request.prior)), soleMm }
  const likelihoods = evidence.map((row, i) =>
    likelihoodOf(row, {
      seat: contactPoints(bikeType, bike, axisPositions(bikeType, history.at[i])).seat,
      axleHeightMm: bikeType.axleHeightMm,
      spacingMm: spacingMm(bikeType.axes.seatHeight.scale),
      soleMm: soles[i],
      school,
    }),
  )
  const keys = evidence.map((row, i) => repeatKey(row, history.at[i]))
  const combinedUpTo = (rows: number) =>
    combineRepeats(
      likelihoods.slice(0, rows).flatMap((likelihood, i) => (likelihood ? [{ key: keys[i], likelihood }] : [])),
    )
  const repeats = combinedUpTo(evidence.length)
  const seed = request.seed ?? 1
  const count = request.samples ?? 4000
  const key = { inputs: { ...inputs, soleMm: 0 }, heelCheck: school.heelCheck, seed, count }
  const from = cachedProposal(evidence.length, {
    key: (rows) => JSON.stringify([key, evidence.slice(0, rows), history.at.slice(0, rows)]),
    proposal: (rows, earlier) => adaptProposal(inputs, combinedUpTo(rows).likelihoods, seed, count, earlier),
  })
  const posterior = samplePosterior(inputs, repeats.likelihoods, seed, count, from)
  const started = evidence.some(isSaddleCheck)
  const now = started ? { seatSlide: defaultSlide(bikeType), ...history.now } : history.now
  const contradicting = keys.map((key) => repeats.contradicting.has(key))
  const readings = lastReadings(evidence, history.at, now, school, contradicting)
  const targets = targetProbabilities(posterior, school, hasBothSides(evidence))
  const search: SaddleSearch = { bikeType, bike, school, targets }
  const slide = positionAt(bikeType, 'seatSlide', now.seatSlide ?? defaultSlide(bikeType))!
  const current = started
    ? saddlePositionAt(search, positionAt(bikeType, 'seatHeight', now.seatHeight)!, slide)
    : startPosition(search, slide)
  const statureMm = momentsOf(posterior, (s) => s.body.statureMm)
  const bars = (at: SaddlePosition) =>
    adviseBars(bikeType, bike, school, evidence, { seatHeight: at.height.mm, seatSlide: at.slide.mm }, statureMm.mean)
  const step = nextStep({ search: search, current: current, started, readings, now, bars: bars(current), evidence })
  const next: Next = posterior.converged ? step : { ...step, reasons: [{ code: 'notSettled' }, ...step.reasons] }
  const proposed = saddleAfter(search, current, next)
  const barsThere = proposed === current ? bars(current) : bars(proposed)
  return {
    chances: markChances(search, current),
    next,
    bars: barsThere,
    marks: {
      barHeight: barsThere.height.label,
      ...(barsThere.slide && { barSlide: barsThere.slide.label }),
      ...now,
      seatHeight: current.height.label,
      seatSlide: current.slide.label,
    },
    belief: {
      kneeFlexionDeg: targets.knee(current.seat),
      plumbOffsetMm: targets.plumb(current.seat),
      legMm: momentsOf(posterior, (s) => s.body.trochanterHeightMm),
      statureMm,
      effectiveSamples: posterior.effectiveSampleSize,
      rider: posteriorMeanRider(posterior, soleMm),
    },
    anomalies: [
      ...repeatAnomalies(evidence, history.at, contradicting),
      ...detectAnomalies(evidence, likelihoods, posterior),
    ],
    readings,
    school,
  }
}

/**
 * The sole worn at each row: as told by the latest row so far, since what was read before stays read in the sole worn
 * then.
 */
function solesOf(evidence: readonly Evidence[]): number[] {
  let soleMm = DEFAULT_SOLE_MM
  return evidence.map((row) => {
    if (row.kind === 'rider' && row.soleMm !== undefined) soleMm = row.soleMm
    return soleMm
  })
}

/**
 * What a row shares its error with: the same kind, by the same means, on the same side, with the saddle at the same
 * place.
 */
function repeatKey(row: Evidence, at: Marks): string {
  const means = [
    row.kind,
    'by' in row && row.by,
    'landmark' in row && row.landmark,
    'shod' in row && row.shod,
    'from' in row && row.from,
    row.side,
  ]
  return JSON.stringify(needsMarks(row) ? [...means, at.seatHeight, at.seatSlide] : means)
}

/** Whether the knee was read on the left and on the right: then both must lie in the window. */
function hasBothSides(evidence: readonly Evidence[]): boolean {
  const sides = evidence.flatMap((row) => (row.kind === 'kneeAngle' || row.kind === 'kneeByEye' ? [row.side] : []))
  return sides.includes('left') && sides.includes('right')
}

/** Where the saddle stands once the moves were made: the bars follow from there, not from where it stood. */
function saddleAfter(search: SaddleSearch, current: SaddlePosition, next: Next): SaddlePosition {
  const to = (axis: 'seatHeight' | 'seatSlide', now: ScalePosition) =>
    positionAt(search.bikeType, axis, next.moves.find((m) => m.axis === axis)?.to) ?? now
  const [height, slide] = [to('seatHeight', current.height), to('seatSlide', current.slide)]
  return height.label === current.height.label && slide.label === current.slide.label
    ? current
    : saddlePositionAt(search, height, slide)
}

/**
 * Per axis and mark: this axis' own check, the other axes as they stand. Bars have a rule, no check, and so no list.
 */
function markChances(search: SaddleSearch, current: SaddlePosition): Advice['chances'] {
  const { bikeType, targets: checks } = search
  const list = (axis: 'seatHeight' | 'seatSlide', chance: (position: ScalePosition) => number): MarkChance[] =>
    positionsOf(bikeType.axes[axis].scale).map((position) => ({
      label: position.label,
      mm: position.mm,
      chance: chance(position),
    }))
  return {
    seatHeight: list('seatHeight', (height) => checks.kneeChance(seatAt(search, height, current.slide))),
    seatSlide: list('seatSlide', (slide) => checks.plumbChance(seatAt(search, current.height, slide))),
  }
}

function posteriorMeanRider(posterior: Posterior, soleMm: number): PosteriorMeanRider {
  const mean = (of: (body: Bodies) => Float64Array) => momentsOf(posterior, ({ body }) => of(body)).mean
  return {
    statureMm: mean((b) => b.statureMm),
    thighMm: mean((b) => b.thighMm),
    shankMm: mean((b) => b.shankMm),
    ankleHeightMm: mean((b) => b.ankleHeightMm),
    ankleToBallMm: mean((b) => b.ankleToBallMm),
    soleMm,
    hipAboveSeatMm: mean((b) => b.hipAboveSeatMm),
    patellaAheadMm: mean((b) => b.patellaAheadMm),
    footPitchDeg: {
      top: TOP_PITCH_DEG,
      forward: mean((b) => b.forwardPitchDeg),
      bottom: mean((b) => b.bottomPitchDeg),
    },
    trunkMm: mean((b) => b.trunkMm),
    upperArmMm: mean((b) => b.upperArmMm),
    forearmToGripMm: mean((b) => b.forearmToGripMm),
    elbowFlexionDeg: SOFT_ELBOW_DEG,
  }
}
