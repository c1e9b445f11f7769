import { momentsOf, type Moments } from '../../riders/inference/moments'
import { samplePosterior, adaptProposal, type Posterior } from '../../riders/inference/posterior'
import { cachedProposal } from '../../riders/inference/proposalCache'
import type { ModelInputs } from '../../riders/inference/particles'
import { axisPositions, contactPoints, seatedAt, type AxisPositions } from '../../bikes/bike/contactPoints'
import type { AxisName, Marks } from '../../base/conventions'
import { isSaddleCheck, latest } from '../../riders/evidence/evidence'
import type { Evidence } from '../../riders/evidence/registry'
import { shorterLegDeg } from '../../riders/kinematics/leg'
import type { Rider } from '../../riders/kinematics/pose'
import { TOP_PITCH_DEG } from '../../riders/rider/anthropometry'
import { priorFor, priorVectorOf, type Bodies } from '../../riders/rider/prior'
import { positionsOf, type Scale, type ScalePosition } from '../../bikes/scale/scale'
import { schoolOf, type School } from '../../base/school/school'
import { isReachSeen } from './bars/barLooks'
import { planBars, type StandingBarAdvice } from './steps/barStep'
import { positionAt, type BarSearch } from './bars/bars'
import { barProbabilities, barTargetFor } from './bars/barTargets'
import { detectAnomalies, repeatAnomalies, type Anomaly } from './history/anomalies'
import { lastReadings, type LastReadings } from './history/lastReadings'
import { nextStep } from './steps/nextStep'
import type { RecommendRequest, MarkChance, Next, Reason } from './request/request'
import {
  READING_TOLERANCE,
  saddlePositionAt,
  seatAt,
  startPosition,
  type SaddlePosition,
  type SaddleSearch,
} from './saddle/saddleSearch'
import { defaultSlide, intentionalSettingReason } from './history/marksHistory'
import { saddleAxes } from './request/stepInputs'
import { questionValues, type QuestionValue } from './steps/nextQuestion'
import { earlierSdMm, priorFromHistory, machineSdMm } from './history/riderHistory'
import { readSetup } from './history/setupReadings'
import { withSlips } from './history/slips'
import { startRuleMarks, type RuledBody, type StartRule } from './startRules'
import { starterFor, type Starter } from './starter'
import { targetProbabilities } from './saddle/targetProbabilities'
import { selfAdjustmentRange, type SelfAdjustmentRange } from './request/selfAdjustment'

/** The mean rider of a belief, ready to be posed, with the spreads that matter to the drawing. */
export type PosteriorMeanRider = Rider & Readonly<{ statureMm: number }>

/** The answer in codes and figures; `words` makes the sentences. */
export type Advice = Readonly<{
  chances: Readonly<Partial<Record<AxisName, readonly MarkChance[]>>>
  /** Chance that knee and plumb line are both right at the current or proposed saddle position. */
  chance: number
  next: Next
  /** Possible next questions, most valuable first. */
  questions: readonly QuestionValue[]
  /** The seat height each school's rule of thumb would set for the mean of what is believed. */
  startRules: Readonly<Record<StartRule, ScalePosition>>
  tryAlone: SelfAdjustmentRange
  starter?: Starter
  bars: StandingBarAdvice
  /** Marks of the computation: the current ones, or the proposed ones at the start. */
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
export function advise(request: RecommendRequest): Advice {
  const { bike, evidence, observer } = request
  const { shorterLeg, sitsAtMm } = request.limits ?? {}
  const bikeType = seatedAt(request.bikeType, bike, sitsAtMm)
  const school = schoolOf(request.school)
  const history = (request.history ?? []).map((setup) =>
    sitsAtMm ? { ...setup, bikeType: seatedAt(setup.bikeType, setup.bike, sitsAtMm) } : setup,
  )
  const readings = readSetup({ bikeType, bike, evidence }, school, observer)
  const seed = request.seed ?? 1
  const count = request.samples ?? 4000
  const prior = priorVectorOf(priorFor(school.foot, request.prior))
  const { body: carriedBody } = request
  const carriedPrior = priorFromHistory({ history, body: carriedBody, school, prior, seed, shorterLeg })
  const inputs: ModelInputs = {
    bikeType,
    sdMm: carriedPrior ? earlierSdMm(bike, 0, true) : machineSdMm(bike),
    prior,
    footing: readings.footing,
    carriedPrior,
    shorterLeg,
  }
  const repeats = readings.combined(evidence.length)
  const key = { ...inputs, bike, footing: 0, carriedPrior: [history, carriedBody], school, observer, seed, count }
  const from = cachedProposal(evidence.length, {
    key: (rows) => JSON.stringify([key, evidence.slice(0, rows), readings.at.slice(0, rows)]),
    proposal: (rows, earlier) => adaptProposal(inputs, readings.combined(rows).likelihoods, seed, count, earlier),
  })
  const posterior = samplePosterior(inputs, repeats.likelihoods, seed, count, from)
  const meant = intentionalSettingReason(evidence, readings.at, readings.now)
  // Intentional numbers are the saddle position, also before the first check.
  const started = meant !== undefined || evidence.some(isSaddleCheck)
  const now = started ? { seatSlide: defaultSlide(bikeType), ...readings.now } : readings.now
  const contradicting = readings.keys.map((k) => repeats.contradicting.has(k))
  const last = lastReadings(evidence, readings.at, now, school, contradicting)
  const isApart = hasBothSides(evidence) || (shorterLeg !== undefined && shorterLeg.mm <= APART_MOST_MM)
  const targets = targetProbabilities(posterior, school, isApart)
  const tolerant = targetProbabilities(posterior, school, isApart, READING_TOLERANCE)
  const search: SaddleSearch = {
    bikeType,
    bike,
    school,
    targets,
    tolerant,
    slideMm: preferredSlideMm(school, evidence),
  }
  const slide = positionAt(bikeType, 'seatSlide', now.seatSlide ?? defaultSlide(bikeType))!
  const current = started
    ? saddlePositionAt(search, positionAt(bikeType, 'seatHeight', now.seatHeight)!, slide)
    : startPosition(search, slide)
  const target = barTargetFor(bikeType, school, evidence, request.limits)
  const barSearch: BarSearch = {
    bikeType,
    target,
    bars: barProbabilities({ bikeType, bike, evidence }, posterior, target),
    byRider: isReachSeen(evidence),
  }
  const barInputs = { barSearch, evidence, at: readings.at, now, readings: last, started, ...(meant && { meant }) }
  const { advice: bars, decided } = planBars(barInputs, current, true)
  const step = nextStep({
    search,
    current,
    started,
    readings: last,
    now,
    bars,
    ...(decided && { decidedBars: decided }),
    barSearch,
    evidence,
    at: readings.at,
    history,
    ...(meant && { meant }),
  })
  const body = posteriorMeanRider(posterior, readings.footing.soleMm)
  const lessDeg = shorterLeg ? shorterLegDeg(shorterLeg.mm, body.thighMm, body.shankMm) : 0
  const reasons: readonly Reason[] = [
    ...(posterior.converged ? [] : [{ code: 'notSettled' } as const]),
    ...step.reasons,
    ...(carriedBody ? [{ code: 'carriedBody', agoDays: carriedBody.agoDays } as const] : []),
    ...(shorterLeg ? [{ code: 'shorterLeg', ...shorterLeg, deg: lessDeg } as const] : []),
    ...(sitsAtMm ? [{ code: 'sitsAt', mm: sitsAtMm } as const] : []),
  ]
  const next: Next = { ...step, reasons }
  const proposed = saddleAfter(search, current, next)
  const barsThere = proposed === current ? bars : planBars(barInputs, proposed, false).advice
  const marks: Marks = {
    barHeight: barsThere.height.label,
    ...(barsThere.slide && { barSlide: barsThere.slide.label }),
    ...now,
    seatHeight: current.height.label,
    seatSlide: current.slide.label,
  }
  const contact = contactPoints(bikeType, bike, axisPositions(bikeType, marks))
  const questions = questionValues({
    search,
    posterior,
    evidence,
    at: readings.at,
    marks,
    context: { bikeType, footing: readings.footing, school, observer },
    contact,
    started,
    costs: request.costs,
  })
  const chances = { ...markChances(search, current), ...barChances(barSearch, saddleAxes(current), marks) }
  const starter = starterFor(search, evidence, proposed)
  return {
    chances,
    chance: current.chance,
    next,
    questions,
    startRules: startRuleMarks(bikeType, bike, ruledBody(posterior, readings.footing.soleMm)),
    tryAlone: selfAdjustmentRange(chances, marks),
    ...(starter && { starter }),
    bars: barsThere,
    marks,
    belief: {
      kneeFlexionDeg: targets.knee(current.seat),
      plumbOffsetMm: targets.plumb(current.seat),
      legMm: momentsOf(posterior, (s) => s.body.trochanterHeightMm),
      statureMm: momentsOf(posterior, (s) => s.body.statureMm),
      effectiveSamples: posterior.effectiveSampleSize,
      rider: body,
    },
    anomalies: withSlips(
      [
        ...repeatAnomalies(evidence, readings.at, contradicting, shorterLeg?.side === 'left' ? -lessDeg : lessDeg),
        ...detectAnomalies(evidence, readings.likelihoods, posterior),
      ],
      { inputs, readings, rows: { bikeType, bike, evidence }, seed },
    ),
    readings: last,
    school,
  }
}

/** A greater difference of the legs leaves no seat at which both knees lie in a window of 10°: the mean decides, mm. */
const APART_MOST_MM = 15

/** Whether the knee was read on the left and on the right: then both must lie in the window. */
function hasBothSides(evidence: readonly Evidence[]): boolean {
  const sides = evidence.flatMap((row) => (row.kind === 'kneeAngle' || row.kind === 'kneeByEye' ? [row.side] : []))
  return sides.includes('left') && sides.includes('right')
}

/** Saddle position after the moves: the bars are computed from it. */
function saddleAfter(search: SaddleSearch, current: SaddlePosition, next: Next): SaddlePosition {
  const to = (axis: 'seatHeight' | 'seatSlide', now: ScalePosition) =>
    positionAt(search.bikeType, axis, next.moves.find((m) => m.axis === axis)?.to) ?? now
  const [height, slide] = [to('seatHeight', current.height), to('seatSlide', current.slide)]
  return height.label === current.height.label && slide.label === current.slide.label
    ? current
    : saddlePositionAt(search, height, slide)
}

/**
 * Per mark of the bars, with the other axes unchanged: height by the rule against the saddle, slide by the rule for
 * reach; after a check of elbows or comfort, for both axes the chance of soft elbows and free knees.
 */
function barChances(search: BarSearch, saddle: AxisPositions, marks: Marks): Advice['chances'] {
  const { bikeType, bars, byRider } = search
  const positions = { ...saddle, ...axisPositions(bikeType, { barHeight: marks.barHeight, barSlide: marks.barSlide }) }
  const chanceAt = (axis: 'barHeight' | 'barSlide', mm: number): number => {
    const at = bars.contactAt({ ...positions, [axis]: mm })
    if (byRider) return bars.softChance(at) * bars.clearChance(at)
    return axis === 'barHeight' ? bars.aboveSaddleChance(at) : bars.reachChance(at)
  }
  const list = (axis: 'barHeight' | 'barSlide', scale: Scale): MarkChance[] =>
    positionsOf(scale).map(({ label, mm }) => ({ label, mm, chance: chanceAt(axis, mm) }))
  const { barHeight, barSlide } = bikeType.axes
  return {
    barHeight: list('barHeight', barHeight.scale),
    ...(barSlide && { barSlide: list('barSlide', barSlide.scale) }),
  }
}

/**
 * Where the slide starts that no check decides, mm: at its middle, and where the school goes by balance farther back
 * for a long or heavy upper body and farther forward for a short one or tight hips. Common practice, no source.
 */
function preferredSlideMm(school: School, evidence: readonly Evidence[]): number {
  const build = latest(evidence, 'build')
  if (school.foreAft !== 'balance' || !build) return 0
  const back = (build.torso === 'long' ? 1 : 0) + (build.heavyUpperBody ? 1 : 0)
  const forward = (build.torso === 'short' ? 1 : 0) + (build.tightHips ? 1 : 0)
  return BALANCE_STEP_MM * Math.sign(forward - back)
}
/** How far build moves the slide from its middle, mm; ours. */
const BALANCE_STEP_MM = 20

/** Per mark of the saddle's axes: the chance of this axis' own check, with the other axes unchanged. */
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

function ruledBody(posterior: Posterior, soleMm: number): RuledBody {
  const mean = (of: (body: Bodies) => Float64Array) => momentsOf(posterior, ({ body }) => of(body)).mean
  return {
    statureMm: mean((b) => b.statureMm),
    inseamMm: mean((b) => b.inseamMm),
    trochanterHeightMm: mean((b) => b.trochanterHeightMm),
    hipCrestHeightMm: mean((b) => b.hipCrestHeightMm),
    frontHipBoneHeightMm: mean((b) => b.frontHipBoneHeightMm),
    soleMm,
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
    elbowFlexionDeg: mean((b) => b.elbowFlexionDeg),
  }
}
