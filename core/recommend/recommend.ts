import { believe, cloudOf, summary, type Belief, type Summary } from '../belief/belief'
import { cloudBefore } from '../belief/prefixes'
import { combineRepeats } from '../belief/repeats'
import type { Setting } from '../belief/sample'
import { statementOf } from '../belief/statement'
import { placeAt } from '../bike/place'
import { type AxisName, type Marks } from '../conventions'
import { isSaddleCheck, needsMarks, type Evidence } from '../evidence/evidence'
import type { Rider } from '../linkage/pose'
import { DEFAULT_SOLE_MM, SOFT_ELBOW_DEG, TOP_PITCH_DEG } from '../rider/anthropometry'
import { priorFor, tableOf, type Bodies } from '../rider/prior'
import { pitchMm, stopsOf, type Stop } from '../scale/scale'
import { schoolOf, type School } from '../school/school'
import { adviseBars, stopAt, type BarAdvice } from './bars'
import { doubtsAbout, repeatDoubts, type Doubt } from './doubts'
import { lastReadings, type LastReadings } from './lastReadings'
import { nextStep } from './next'
import type { FitRequest, MarkChance, Next } from './request'
import { pairAt, seatAt, startPair, type Pair, type SaddleQuestion } from './saddle'
import { marksHistory, positions, startSlide } from './standing'
import { saddleChecks } from './windows'

/** The mean rider of a belief, ready to be posed, with the spreads that matter to the drawing. */
export type BelievedRider = Rider & Readonly<{ statureMm: number }>

/** The answer in codes and figures; `words` makes the sentences. */
export type Advice = Readonly<{
  chances: Readonly<Partial<Record<AxisName, readonly MarkChance[]>>>
  next: Next
  bars: BarAdvice
  /** The marks everything is computed at: as they stand, or as proposed at the start. */
  marks: Marks
  belief: Readonly<{
    kneeFlexionDeg: Summary
    plumbOffsetMm: Summary
    /** Hip joint to floor, barefoot. */
    legMm: Summary
    statureMm: Summary
    effectiveSamples: number
    rider: BelievedRider
  }>
  doubts: readonly Doubt[]
  readings: LastReadings
  school: School
}>

/**
 * The next best step for a rider on a bike, from all evidence in time order. Pure: the same request and seed give the
 * same answer. Expects a request that has passed the door (labels exist, every check knows its marks).
 */
export function recommend(request: FitRequest): Advice {
  const { bikeType, bike, evidence } = request
  const school = schoolOf(request.school)
  const history = marksHistory(bikeType, evidence)
  const soles = solesOf(evidence)
  const soleMm = soles.at(-1) ?? DEFAULT_SOLE_MM
  const setting: Setting = { bikeType, bike, prior: tableOf(priorFor(school.foot, request.prior)), soleMm }
  const statements = evidence.map((row, i) =>
    statementOf(row, {
      seat: placeAt(bikeType, bike, positions(bikeType, history.at[i])).seat,
      axleHeightMm: bikeType.axleHeightMm,
      pitchMm: pitchMm(bikeType.axes.seatHeight.scale),
      soleMm: soles[i],
      school,
    }),
  )
  const keys = evidence.map((row, i) => repeatKey(row, history.at[i]))
  const combinedUpTo = (rows: number) =>
    combineRepeats(
      statements.slice(0, rows).flatMap((statement, i) => (statement ? [{ key: keys[i], statement }] : [])),
    )
  const repeats = combinedUpTo(evidence.length)
  const seed = request.seed ?? 1
  const count = request.samples ?? 4000
  const told = { setting: { ...setting, soleMm: 0 }, heelCheck: school.heelCheck, seed, count }
  const from = cloudBefore(evidence.length, {
    key: (rows) => JSON.stringify([told, evidence.slice(0, rows), history.at.slice(0, rows)]),
    cloud: (rows, earlier) => cloudOf(setting, combinedUpTo(rows).statements, seed, count, earlier),
  })
  const belief = believe(setting, repeats.statements, seed, count, from)
  const started = evidence.some(isSaddleCheck)
  const now = started ? { seatSlide: startSlide(bikeType), ...history.now } : history.now
  const contradicting = keys.map((key) => repeats.contradicting.has(key))
  const readings = lastReadings(evidence, history.at, now, school, contradicting)
  const checks = saddleChecks(belief, school, readBothSides(evidence))
  const question: SaddleQuestion = { bikeType, bike, school, checks }
  const slide = stopAt(bikeType, 'seatSlide', now.seatSlide ?? startSlide(bikeType))!
  const standing = started
    ? pairAt(question, stopAt(bikeType, 'seatHeight', now.seatHeight)!, slide)
    : startPair(question, slide)
  const statureMm = summary(belief, (s) => s.body.statureMm)
  const bars = (at: Pair) =>
    adviseBars(bikeType, bike, school, evidence, { seatHeight: at.height.mm, seatSlide: at.slide.mm }, statureMm.mean)
  const step = nextStep({ question, standing, started, readings, now, bars: bars(standing), evidence })
  const next: Next = belief.settled ? step : { ...step, reasons: [{ code: 'notSettled' }, ...step.reasons] }
  const proposed = pairAfter(question, standing, next)
  const barsThere = proposed === standing ? bars(standing) : bars(proposed)
  return {
    chances: chancesAround(question, standing),
    next,
    bars: barsThere,
    marks: {
      barHeight: barsThere.height.label,
      ...(barsThere.slide && { barSlide: barsThere.slide.label }),
      ...now,
      seatHeight: standing.height.label,
      seatSlide: standing.slide.label,
    },
    belief: {
      kneeFlexionDeg: checks.knee(standing.seat),
      plumbOffsetMm: checks.plumb(standing.seat),
      legMm: summary(belief, (s) => s.body.trochanterHeightMm),
      statureMm,
      effectiveSamples: belief.effectiveSamples,
      rider: meanRider(belief, soleMm),
    },
    doubts: [...repeatDoubts(evidence, history.at, contradicting), ...doubtsAbout(evidence, statements, belief)],
    readings,
    school,
  }
}

/** The sole worn at each row: as told by the latest row so far, since what was read before stays read in the sole worn then. */
function solesOf(evidence: readonly Evidence[]): number[] {
  let soleMm = DEFAULT_SOLE_MM
  return evidence.map((row) => {
    if (row.kind === 'rider' && row.soleMm !== undefined) soleMm = row.soleMm
    return soleMm
  })
}

/** What a row shares its error with: the same kind, by the same means, on the same side, with the saddle at the same place. */
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
function readBothSides(evidence: readonly Evidence[]): boolean {
  const sides = evidence.flatMap((row) => (row.kind === 'kneeAngle' || row.kind === 'kneeByEye' ? [row.side] : []))
  return sides.includes('left') && sides.includes('right')
}

/** Where the saddle stands once the moves were made: the bars follow from there, not from where it stood. */
function pairAfter(question: SaddleQuestion, standing: Pair, next: Next): Pair {
  const to = (axis: 'seatHeight' | 'seatSlide', now: Stop) =>
    stopAt(question.bikeType, axis, next.moves.find((m) => m.axis === axis)?.to) ?? now
  const [height, slide] = [to('seatHeight', standing.height), to('seatSlide', standing.slide)]
  return height.label === standing.height.label && slide.label === standing.slide.label
    ? standing
    : pairAt(question, height, slide)
}

/** Per axis and mark: this axis' own check, the other axes as they stand. Bars have a rule, no check, and so no list. */
function chancesAround(question: SaddleQuestion, standing: Pair): Advice['chances'] {
  const { bikeType, checks } = question
  const list = (axis: 'seatHeight' | 'seatSlide', chance: (stop: Stop) => number): MarkChance[] =>
    stopsOf(bikeType.axes[axis].scale).map((stop) => ({ label: stop.label, mm: stop.mm, chance: chance(stop) }))
  return {
    seatHeight: list('seatHeight', (height) => checks.kneeChance(seatAt(question, height, standing.slide))),
    seatSlide: list('seatSlide', (slide) => checks.plumbChance(seatAt(question, standing.height, slide))),
  }
}

function meanRider(belief: Belief, soleMm: number): BelievedRider {
  const mean = (of: (body: Bodies) => Float64Array) => summary(belief, ({ body }) => of(body)).mean
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
