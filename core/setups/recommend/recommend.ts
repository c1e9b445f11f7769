import { isPlain, standingAt } from '../../bikes/bike/standing'
import { momentsOf } from '../../riders/inference/moments'
import type { Posterior } from '../../riders/inference/posterior'
import { axisPositions, contactPoints, type AxisPositions } from '../../bikes/bike/contactPoints'
import type { Marks } from '../../base/conventions'
import { latest } from '../../riders/evidence/evidence'
import type { Evidence } from '../../riders/evidence/registry'
import { shorterLegDeg } from '../../riders/kinematics/leg'
import { TOP_PITCH_DEG } from '../../riders/rider/anthropometry'
import type { Bodies } from '../../riders/rider/prior'
import { positionsOf, type Scale, type ScalePosition } from '../../bikes/scale/scale'
import type { School } from '../../base/school/school'
import type { Advice, PosteriorMeanRider } from './knowledge/advice'
import { believe, type Knowledge, type StandingMachine } from './knowledge/belief'
import { isReachSeen } from './bars/barLooks'
import { planBars } from './steps/barStep'
import { positionAt, type BarSearch } from './bars/bars'
import { barProbabilities, barTargetFor } from './bars/barTargets'
import { detectAnomalies, repeatAnomalies } from './history/anomalies'
import { adviseFurther } from './further/furtherAdvice'
import { lastReadings } from './history/lastReadings'
import { nextStep } from './steps/nextStep'
import type { RecommendRequest, MarkChance, Next, Reason } from './request/request'
import { saddlePositionAt, seatAt, startPosition, type SaddlePosition, type SaddleSearch } from './saddle/saddleSearch'
import { defaultSlide } from './history/marksHistory'
import { saddleAxes } from './request/stepInputs'
import { questionValues } from './steps/nextQuestion'
import { withSlips } from './history/slips'
import { startRuleMarks, type RuledBody } from './steps/startRules'
import { starterFor } from './steps/starter'
import { selfAdjustmentRange } from './request/selfAdjustment'

export type { Advice, PosteriorMeanRider }

/**
 * The next best step for a rider on a bike, from all evidence in time order. Pure: the same request and seed give the
 * same answer. Expects a request that has passed `dispatch` (labels exist, every check knows its marks). On a type with
 * more than the common four, the further adjustments are chosen first (`furtherPlan`), and the rest with them as they
 * then stand; a slide that a type lacks is left out of the answer.
 */
export function advise(request: RecommendRequest): Advice {
  const known = believe(request)
  if (isPlain(known.bikeType)) return decide(known, { bikeType: known.bikeType, bike: request.bike })
  return adviseFurther(known, (further) => {
    const machine = standingAt(known.bikeType, request.bike, further)
    return { search: searchOn(known, machine), advice: () => decide(known, machine) }
  })
}

/** The saddle's search on a machine as it stands. */
function searchOn({ request, onCranks, followed }: Knowledge, { bikeType, bike }: StandingMachine): SaddleSearch {
  const { targets, tolerant } = onCranks(bikeType.crankMm)
  return { bikeType, bike, school: followed, targets, tolerant, slideMm: preferredSlideMm(followed, request.evidence) }
}

/** The advice for a machine whose further adjustments stay as they stand. */
function decide(known: Knowledge, machine: StandingMachine): Advice {
  const { request, readings, history, contradicting, meant, started, now, inputs, seed, followed: school } = known
  const { evidence, observer } = request
  const { shorterLeg, sitsAtMm, ownSaddleMm } = request.limits ?? {}
  const { bikeType, bike } = machine
  const search = searchOn(known, machine)
  const { posterior } = known.onCranks(bikeType.crankMm)
  const { targets } = search
  const last = lastReadings(evidence, readings.at, now, school, contradicting)
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
    ...(request.body ? [{ code: 'carriedBody', agoDays: request.body.agoDays } as const] : []),
    ...(shorterLeg ? [{ code: 'shorterLeg', ...shorterLeg, deg: lessDeg } as const] : []),
    ...(sitsAtMm ? [{ code: 'sitsAt', mm: sitsAtMm } as const] : []),
    ...(ownSaddleMm ? [{ code: 'ownSaddle', mm: ownSaddleMm } as const] : []),
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
      { inputs, readings, rows: { bikeType: known.bikeType, bike: request.bike, evidence }, seed },
    ),
    readings: last,
    school,
  }
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
    positionsOf(bikeType.axes[axis]!.scale).map((position) => ({
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
