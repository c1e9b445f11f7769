import type { AxisName, Label, Marks } from '../conventions'
import { latest, type Evidence } from '../evidence/evidence'
import type { Stop } from '../scale/scale'
import type { BarAdvice } from './bars'
import { stopAt } from './bars'
import { plumbFromFrontMm, type LastReadings } from './lastReadings'
import type { Check, Expectation, Move, Next, Reason } from './request'
import {
  bestPair,
  heightEnd,
  kneeGain,
  legEffectMm,
  pairAt,
  slideEnd,
  SMALL_CHANCE,
  WORTH_A_DISMOUNT,
  type Pair,
  type SaddleQuestion,
  type ScaleEnd,
} from './saddle'

type Situation = Readonly<{
  question: SaddleQuestion
  /** Where the saddle stands, or is proposed to stand at the start. */
  standing: Pair
  /** A check on the saddle was made. */
  started: boolean
  readings: LastReadings
  now: Marks
  bars: BarAdvice
  evidence: readonly Evidence[]
}>

/** Start until a check on the saddle was made; then stop, change, or out of range. */
export function nextStep(situation: Situation): Next {
  const { started, readings, question, standing } = situation
  const plumbSuits = !readings.plumbEverTaken || readings.plumbHolds
  const end =
    (readings.kneeHolds ? null : heightEnd(question, standing)) ??
    (plumbSuits && started ? null : slideEnd(question, standing))
  if (!started) return begin(situation, end)
  if (readings.kneeContradicts) return readAgain(situation)
  const best = bestPair(question, standing)
  if (end) return ended(situation, end, best)
  // It speaks only of checks taken: before the plumb line was hung, a good knee is left for it to be hung.
  const gain = readings.plumbEverTaken ? best.chance - standing.chance : kneeGain(question, standing)
  return best === standing || gain < worthADismount(situation) ? stop(situation, gain) : change(situation, best)
}

/**
 * How much better another pair must be to climb off for, whatever the last reading was: it is in the chances already. The
 * smaller the chance where the saddle stands, the less will do.
 */
function worthADismount({ question, standing, readings }: Situation): number {
  const chance = readings.plumbEverTaken ? standing.chance : question.checks.kneeChance(standing.seat)
  return WORTH_A_DISMOUNT * Math.min(1, chance / SMALL_CHANCE)
}

function begin(situation: Situation, end: ScaleEnd | null): Next {
  const { standing, evidence, now, bars, question } = situation
  const { bikeType } = question
  const moves: Move[] = [
    moveTo('seatHeight', standing.height),
    moveTo('seatSlide', standing.slide),
    moveTo('barHeight', bars.height),
    ...(bars.slide ? [moveTo('barSlide', bars.slide)] : []),
  ]
  const known = evidence.some((row) => row.kind !== 'rider' && row.kind !== 'set')
  const reasons: Reason[] = [...(known ? [] : [{ code: 'noEvidence' } as const]), chanceReason(standing)]
  const base = {
    moves,
    expect: expectations(situation, standing, false),
    checks: ['kneeFlexion', 'plumb', 'barAgainstSaddle', 'reach'] as Check[],
    reasons,
  }
  return end ? { ...base, kind: 'outOfRange', scaleEnd: endFigures(end) } : { ...base, kind: 'start' }

  function moveTo(axis: AxisName, to: Stop): Move {
    const from = stopAt(bikeType, axis, now[axis])
    return { axis, ...(from && { from: from.label }), to: to.label, mm: from ? to.mm - from.mm : 0 }
  }
}

/** Nothing is changed on readings that contradict each other: the knee is read again where the saddle stands. */
function readAgain(situation: Situation): Next {
  const checks: Check[] = ['kneeFlexion', ...openChecks(situation).filter((check) => check !== 'kneeFlexion')]
  return {
    kind: 'stop',
    moves: [],
    expect: expectations(situation, situation.standing, false),
    checks,
    reasons: [...readingReasons(situation), chanceReason(situation.standing)],
    readAgain: true,
  }
}

function stop(situation: Situation, gain: number): Next {
  const { standing, question, readings } = situation
  const chance = readings.plumbEverTaken ? standing.chance : question.checks.kneeChance(standing.seat)
  return {
    kind: 'stop',
    moves: [],
    expect: expectations(situation, situation.standing, false),
    checks: openChecks(situation),
    reasons: [
      ...readingReasons(situation),
      chanceReason(situation.standing),
      { code: 'noBetterMark', gain: Math.max(0, gain) },
    ],
    ...(chance < SMALL_CHANCE && { smallChance: chance }),
  }
}

function change(situation: Situation, best: Pair): Next {
  const { standing, readings } = situation
  const moves = movesBetween(standing, best)
  const slideMoves = best.slide.label !== standing.slide.label
  const reasons: Reason[] = [...readingReasons(situation), chanceReason(best)]
  if (slideMoves && !readings.plumbEverTaken)
    reasons.push({ code: 'vernier', heightMm: legEffectMm(situation.question, standing.seat, best.seat) })
  if (slideMoves && readings.plumbEverTaken)
    reasons.push({ code: 'slideForPedals', plumbMm: situation.question.checks.plumbMedian(best.seat) })
  const reachMm = standing.seat.xMm - best.seat.xMm
  if (Math.abs(reachMm) >= 1) reasons.push({ code: 'reachChanges', mm: reachMm })
  const checks: Check[] = ['kneeFlexion', ...heelIfItDecides(situation.question), 'plumb', 'barAgainstSaddle', 'reach']
  return { kind: 'change', moves, expect: expectations(situation, best, true), checks, reasons }
}

/** To the end of the scale that ended; the other axis goes where it serves best beside it. */
function ended(situation: Situation, end: ScaleEnd, best: Pair): Next {
  const { standing, question } = situation
  const at =
    end.axis === 'seatHeight'
      ? { height: end.nearest, slide: best.height.label === end.nearest.label ? best.slide : standing.slide }
      : { height: best.slide.label === end.nearest.label ? best.height : standing.height, slide: end.nearest }
  const to = pairAt(question, at.height, at.slide)
  const moved = movesBetween(standing, to)
  const stays = { axis: end.axis, from: end.nearest.label, to: end.nearest.label, mm: 0 }
  return {
    kind: 'outOfRange',
    moves: moved.some((m) => m.axis === end.axis) ? moved : [stays, ...moved],
    expect: expectations(situation, to, true),
    checks: openChecks(situation),
    reasons: [...readingReasons(situation), chanceReason(to)],
    scaleEnd: endFigures(end),
  }
}

function movesBetween(from: Pair, to: Pair): Move[] {
  const move = (axis: AxisName, a: Stop, b: Stop): Move[] =>
    a.label === b.label ? [] : [{ axis, from: a.label, to: b.label, mm: b.mm - a.mm }]
  return [...move('seatHeight', from.height, to.height), ...move('seatSlide', from.slide, to.slide)]
}

function expectations({ question, standing, started }: Situation, to: Pair, moving: boolean): Expectation[] {
  const { checks } = question
  const knee = checks.knee(to.seat)
  const plumb = checks.plumb(to.seat)
  const from = started && moving
  return [
    {
      check: 'kneeFlexion',
      ...(from && { from: checks.kneeMedian(standing.seat) }),
      to: checks.kneeMedian(to.seat),
      spread: knee.sd,
    },
    {
      check: 'plumb',
      ...(from && { from: checks.plumbMedian(standing.seat) }),
      to: checks.plumbMedian(to.seat),
      spread: plumb.sd,
    },
  ]
}

const chanceReason = (pair: Pair): Reason => ({
  code: 'chance',
  height: pair.height.label,
  slide: pair.slide.label,
  chance: pair.chance,
})

const endFigures = (end: ScaleEnd): NonNullable<Next['scaleEnd']> => ({
  axis: end.axis,
  end: end.end,
  nearest: end.nearest.label,
  wantedMm: end.wantedMm,
  missingMm: Math.abs(end.wantedMm - end.nearest.mm),
})

function readingReasons({ readings, question, evidence }: Situation): Reason[] {
  const reasons: Reason[] = []
  const knee = readings.knee ?? latest(evidence, 'kneeAngle')
  const elsewhere =
    knee && knee !== readings.knee && knee.at?.seatHeight !== undefined ? { at: knee.at.seatHeight } : {}
  if (knee?.kind === 'kneeAngle')
    reasons.push({
      code: 'lastReading',
      check: 'kneeFlexion',
      deg: knee.deg,
      inWindow: knee === readings.knee && readings.kneeHolds,
      ...elsewhere,
    })
  if (knee?.kind === 'kneeByEye') reasons.push({ code: 'seenByEye', seen: knee.seen })
  if (readings.heel) {
    const decides = question.school.heelCheck === 'target' || question.school.heelCheck === 'ceiling'
    reasons.push({ code: 'heelSeen', seen: readings.heel.seen, decides })
  }
  if (readings.plumb)
    reasons.push({
      code: 'lastReading',
      check: 'plumb',
      mm: plumbFromFrontMm(readings.plumb),
      inWindow: readings.plumbHolds,
    })
  return reasons
}

/** Checks not yet made with the saddle where it stands; the bars have only their rule so far. */
function openChecks({ readings, now, bars, question }: Situation): Check[] {
  const sameBars = (label: Label | undefined, wanted: Stop | undefined) =>
    label !== undefined && label === wanted?.label
  return [
    ...(readings.knee ? [] : (['kneeFlexion'] as const)),
    ...(readings.heel ? [] : heelIfItDecides(question)),
    ...(readings.plumb ? [] : (['plumb'] as const)),
    ...(sameBars(now.barHeight, bars.height) ? [] : (['barAgainstSaddle'] as const)),
    'reach',
  ]
}

/** The heel check, where the studio's school goes by it. */
const heelIfItDecides = ({ school }: SaddleQuestion): readonly Check[] =>
  school.heelCheck === 'target' || school.heelCheck === 'ceiling' ? ['heel'] : []
