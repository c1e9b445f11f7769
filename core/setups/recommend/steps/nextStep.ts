import type { AxisName } from '../../../base/conventions'
import { isBodyEvidence, latest } from '../../../riders/evidence/evidence'
import { plumbFromFrontMm } from '../../../riders/evidence/kinds/onBike/plumb'
import type { ScalePosition } from '../../../bikes/scale/scale'
import { positionAt } from '../bars/bars'
import { barStep, looksReason } from './barStep'
import { expectations } from '../request/expectations'
import { staticFlexionDeg } from '../history/lastReadings'
import { heelIfItDecides, openChecks, plumbIfUsed } from './openChecks'
import type { Check, Move, Next, Reason } from '../request/request'
import type { EarlierSetup } from '../history/riderHistory'
import {
  bestPosition,
  heightEnd,
  kneeGain,
  legEffectMm,
  saddlePositionAt,
  slideEnd,
  SMALL_CHANCE,
  MIN_GAIN,
  MIN_KNEE_GAIN,
  type SaddlePosition,
  type ScaleEnd,
} from '../saddle/saddleSearch'
import { barsLookedAt, chanceReason, saddleMoves, type StepInputs } from '../request/stepInputs'

/** Start until a check on the saddle was made; then stop, change, or out of range. */
export function nextStep(situation: StepInputs): Next {
  if (situation.meant) return meantStep(situation, situation.meant)
  const step = saddleStep(situation)
  const settled = step.kind === 'stop' && !step.readAgain && step.smallChance === undefined
  if (!settled) return step
  return barStep(situation) ?? withBarsLeft(step, situation)
}

/** An intentional setting never changes, independent of the checks. */
function meantStep(situation: StepInputs, why: NonNullable<StepInputs['meant']>): Next {
  return {
    kind: 'stop',
    moves: [],
    expect: expectations(situation, { to: situation.current }),
    checks: openChecks(situation),
    reasons: [{ code: 'meant', why }, ...readingReasons(situation), chanceReason(situation.current)],
    meant: why,
  }
}

/**
 * What was decided of bars that stay: right by the rider, to be looked at again, or wrong at every mark of this bike.
 */
function withBarsLeft(step: Next, inputs: StepInputs): Next {
  const { decidedBars } = inputs
  if (!decidedBars || !barsLookedAt(inputs)) return step
  const { situation, decision } = decidedBars
  if (decision.kind !== 'stay') return step
  return {
    ...step,
    reasons: [...step.reasons, ...looksReason(situation)],
    barsWhy: decision.why,
    ...(decision.end && { barsEnd: decision.end }),
    ...(decision.heightDisagreesMm !== undefined && { barsDisagreeMm: decision.heightDisagreesMm }),
  }
}

function saddleStep(situation: StepInputs): Next {
  const { started, readings, search, current } = situation
  const plumbSuits = !readings.plumbEverTaken || readings.plumbInRange
  const end =
    (readings.kneeInRange ? null : heightEnd(search, current)) ??
    (plumbSuits && started ? null : slideEnd(search, current))
  if (!started) return startStep(situation, end)
  if (readings.kneeContradicts) return readAgainStep(situation)
  const best = bestPosition(search, current)
  if (end) return outOfRangeStep(situation, end, best)
  // It speaks only of checks taken: before the plumb line was hung, a good knee is left for it to be hung.
  const gain = readings.plumbEverTaken ? best.chance - current.chance : kneeGain(search, current)
  const enough = isWorthDismount(situation, best)
  return best === current || !enough ? stopStep(situation, gain) : changeStep(situation, best)
}

/**
 * Whether another pair is worth a dismount. The chances include the last reading. Differences below the resolution of
 * the instruments do not count as wrong. The smaller the chance at the current position, the smaller the required gain.
 * A gain of the knee alone is sufficient.
 */
function isWorthDismount({ search, current, readings }: StepInputs, best: SaddlePosition): boolean {
  const { tolerant } = search
  const chance = readings.plumbEverTaken ? tolerant.bothChance : tolerant.kneeChance
  const gain = chance(best.seat) - chance(current.seat)
  const kneeGain = tolerant.kneeChance(best.seat) - tolerant.kneeChance(current.seat)
  return gain >= MIN_GAIN * Math.min(1, chance(current.seat) / SMALL_CHANCE) || kneeGain >= MIN_KNEE_GAIN
}

function startStep(situation: StepInputs, end: ScaleEnd | null): Next {
  const { current, evidence, now, bars, search } = situation
  const { bikeType } = search
  const moves: Move[] = [
    moveTo('seatHeight', current.height),
    moveTo('seatSlide', current.slide),
    moveTo('barHeight', bars.height),
    ...(bars.slide ? [moveTo('barSlide', bars.slide)] : []),
  ]
  const hasRiderData = evidence.some(isBodyEvidence) || situation.history.length > 0
  const reasons: Reason[] = [
    ...(hasRiderData ? [] : [{ code: 'noEvidence' } as const]),
    ...historyReason(situation.history),
    chanceReason(current),
  ]
  const base = {
    moves,
    expect: expectations(situation, { to: current }),
    checks: ['kneeFlexion', ...plumbIfUsed(search), 'barAgainstSaddle', 'reach'] as Check[],
    reasons,
  }
  return end ? { ...base, kind: 'outOfRange', scaleEnd: endFigures(end) } : { ...base, kind: 'start' }

  function moveTo(axis: AxisName, to: ScalePosition): Move {
    const from = positionAt(bikeType, axis, now[axis])
    return { axis, ...(from && { from: from.label }), to: to.label, mm: from ? to.mm - from.mm : 0 }
  }
}

const historyReason = (history: readonly EarlierSetup[]): Reason[] =>
  history.length === 0
    ? []
    : [{ code: 'history', setups: history.length, agoDays: Math.min(...history.map((h) => h.agoDays)) }]

/** Contradicting readings change nothing: the knee is read again at the current saddle position. */
function readAgainStep(situation: StepInputs): Next {
  const checks: Check[] = ['kneeFlexion', ...openChecks(situation).filter((check) => check !== 'kneeFlexion')]
  return {
    kind: 'stop',
    moves: [],
    expect: expectations(situation, { to: situation.current }),
    checks,
    reasons: [...readingReasons(situation), chanceReason(situation.current)],
    readAgain: true,
  }
}

function stopStep(situation: StepInputs, gain: number): Next {
  const { current, search, readings } = situation
  const chance = readings.plumbEverTaken ? current.chance : search.targets.kneeChance(current.seat)
  return {
    kind: 'stop',
    moves: [],
    expect: expectations(situation, { to: situation.current }),
    checks: openChecks(situation),
    reasons: [
      ...readingReasons(situation),
      chanceReason(situation.current),
      { code: 'noBetterMark', gain: Math.max(0, gain) },
    ],
    ...(chance < SMALL_CHANCE && { smallChance: chance }),
  }
}

function changeStep(situation: StepInputs, best: SaddlePosition): Next {
  const { current, readings } = situation
  const moves = saddleMoves(current, best)
  const slideMoves = best.slide.label !== current.slide.label
  const reasons: Reason[] = [...readingReasons(situation), chanceReason(best)]
  if (slideMoves && !readings.plumbEverTaken)
    reasons.push({ code: 'vernier', heightMm: legEffectMm(situation.search, current.seat, best.seat) })
  if (slideMoves && readings.plumbEverTaken)
    reasons.push({ code: 'slideForPedals', plumbMm: situation.search.targets.plumbMedian(best.seat) })
  const reachMm = current.seat.xMm - best.seat.xMm
  if (Math.abs(reachMm) >= 1) reasons.push({ code: 'reachChanges', mm: reachMm })
  const checks: Check[] = [
    'kneeFlexion',
    ...heelIfItDecides(situation.search),
    ...plumbIfUsed(situation.search),
    'barAgainstSaddle',
    'reach',
  ]
  return { kind: 'change', moves, expect: expectations(situation, { from: current, to: best }), checks, reasons }
}

/** To the end of the scale that ended; the other axis goes where it serves best beside it. */
function outOfRangeStep(situation: StepInputs, end: ScaleEnd, best: SaddlePosition): Next {
  const { current, search } = situation
  const at =
    end.axis === 'seatHeight'
      ? { height: end.nearest, slide: best.height.label === end.nearest.label ? best.slide : current.slide }
      : { height: best.slide.label === end.nearest.label ? best.height : current.height, slide: end.nearest }
  const to = saddlePositionAt(search, at.height, at.slide)
  const moved = saddleMoves(current, to)
  const stays = { axis: end.axis, from: end.nearest.label, to: end.nearest.label, mm: 0 }
  return {
    kind: 'outOfRange',
    moves: moved.some((m) => m.axis === end.axis) ? moved : [stays, ...moved],
    expect: expectations(situation, { from: current, to }),
    checks: openChecks(situation),
    reasons: [...readingReasons(situation), chanceReason(to)],
    scaleEnd: endFigures(end),
  }
}

const endFigures = (end: ScaleEnd): NonNullable<Next['scaleEnd']> => ({
  axis: end.axis,
  end: end.end,
  nearest: end.nearest.label,
  wantedMm: end.wantedMm,
  missingMm: Math.abs(end.wantedMm - end.nearest.mm),
})

function readingReasons({ readings, search, evidence }: StepInputs): Reason[] {
  const reasons: Reason[] = []
  const knee = readings.knee ?? latest(evidence, 'kneeAngle')
  const elsewhere =
    knee && knee !== readings.knee && knee.at?.seatHeight !== undefined ? { at: knee.at.seatHeight } : {}
  if (knee?.kind === 'kneeAngle')
    reasons.push({
      code: 'lastReading',
      check: 'kneeFlexion',
      deg: staticFlexionDeg(knee),
      inWindow: knee === readings.knee && readings.kneeInRange,
      ...elsewhere,
    })
  if (knee?.kind === 'kneeByEye') reasons.push({ code: 'seenByEye', seen: knee.seen })
  if (readings.heel) {
    const decides = search.school.heelCheck === 'target' || search.school.heelCheck === 'ceiling'
    reasons.push({ code: 'heelSeen', seen: readings.heel.seen, decides })
  }
  if (readings.plumb?.kind === 'plumbByEye') reasons.push({ code: 'plumbSeen', seen: readings.plumb.seen })
  if (readings.plumb?.kind === 'plumb')
    reasons.push({
      code: 'lastReading',
      check: 'plumb',
      mm: plumbFromFrontMm(readings.plumb, search.school),
      inWindow: readings.plumbInRange,
    })
  return reasons
}
