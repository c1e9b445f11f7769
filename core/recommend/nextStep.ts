import type { AxisName, Label, Marks } from '../conventions'
import { isBarCheck, isBodyEvidence, latest } from '../evidence/evidence'
import type { Evidence } from '../evidence/registry'
import type { ScalePosition } from '../scale/scale'
import {
  barPositionAt,
  positionAt,
  reachAt,
  standingBars,
  type BarAdvice,
  type BarPosition,
  type BarSearch,
} from './bars'
import { plumbFromFrontMm } from '../evidence/kinds/plumb'
import { heldFlexionDeg, type LastReadings } from './lastReadings'
import type { EarlierSetup } from './riderHistory'
import type { Check, Expectation, Move, Next, Reason } from './request'
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
  type SaddleSearch,
  type ScaleEnd,
} from './saddleSearch'

type StepInputs = Readonly<{
  search: SaddleSearch
  /** Where the saddle stands, or is proposed to stand at the start. */
  current: SaddlePosition
  /** A check on the saddle was made. */
  started: boolean
  readings: LastReadings
  now: Marks
  bars: BarAdvice
  barSearch: BarSearch
  evidence: readonly Evidence[]
  /** Where the axes stood at each row. */
  at: readonly Marks[]
  history: readonly EarlierSetup[]
}>

/** Start until a check on the saddle was made; then stop, change, or out of range. */
export function nextStep(situation: StepInputs): Next {
  const step = saddleStep(situation)
  const settled = step.kind === 'stop' && !step.readAgain && step.smallChance === undefined
  return (settled ? barStep(situation) : null) ?? step
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
 * Whether another pair is so much better that it is worth climbing off for, whatever the last reading was: it is in the
 * chances already. What no instrument tells apart does not count as wrong here, and the smaller the chance where the
 * saddle stands, the less will do. A knee that would be right more often counts by itself.
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
  const known = evidence.some(isBodyEvidence) || situation.history.length > 0
  const reasons: Reason[] = [
    ...(known ? [] : [{ code: 'noEvidence' } as const]),
    ...historyReason(situation.history),
    chanceReason(current),
  ]
  const base = {
    moves,
    expect: expectations(situation, current, false),
    checks: ['kneeFlexion', ...plumbIfUsed(search), 'barAgainstSaddle', 'reach'] as Check[],
    reasons,
  }
  return end ? { ...base, kind: 'outOfRange', scaleEnd: endFigures(end) } : { ...base, kind: 'start' }

  function moveTo(axis: AxisName, to: ScalePosition): Move {
    const from = positionAt(bikeType, axis, now[axis])
    return { axis, ...(from && { from: from.label }), to: to.label, mm: from ? to.mm - from.mm : 0 }
  }
}

/**
 * The bars, once the saddle stands right and a check of them was made here: the pair of marks that is clearly better,
 * or null where they may stay.
 */
function barStep(situation: StepInputs): Next | null {
  const { barSearch, bars, now, current, evidence, at } = situation
  const saddle = { seatHeight: current.height.mm, seatSlide: current.slide.mm }
  const standing = standingBars(barSearch, saddle, now)
  const looked = evidence.some((row, i) => isBarCheck(row) && sameBarsAt(at[i], now))
  if (!standing || !looked || bars.chance - standing.chance < MIN_GAIN) return null
  const move = (axis: AxisName, from: ScalePosition | undefined, to: ScalePosition | undefined): Move[] =>
    !from || !to || from.label === to.label ? [] : [{ axis, from: from.label, to: to.label, mm: to.mm - from.mm }]
  const moves = [...move('barHeight', standing.height, bars.height), ...move('barSlide', standing.slide, bars.slide)]
  if (moves.length === 0) return null
  const [from, to] = [standing, bars].map((position) => reachAt(barSearch, saddle, position))
  const label = { height: bars.height.label, ...(bars.slide && { slide: bars.slide.label }) }
  return {
    kind: 'change',
    moves,
    expect: [
      ...expectations(situation, current, false).filter(({ check }) => !isOfBars(check)),
      {
        check: 'barAgainstSaddle',
        unit: 'mm',
        from: standing.gripAboveSeatMm,
        to: bars.gripAboveSeatMm,
        spread: barSearch.bars.aboveSaddleSdMm,
      },
      {
        check: 'reach',
        unit: barSearch.target.reach.by === 'trunk' ? 'deg' : 'mm',
        from: from.mean,
        to: to.mean,
        spread: to.sd,
      },
    ],
    checks: ['barAgainstSaddle', 'reach'],
    reasons: [{ code: 'barChance', ...label, chance: bars.chance }],
  }
}

const isOfBars = (check: Check): boolean => check === 'barAgainstSaddle' || check === 'reach'

const historyReason = (history: readonly EarlierSetup[]): Reason[] =>
  history.length === 0
    ? []
    : [{ code: 'history', setups: history.length, agoDays: Math.min(...history.map((h) => h.agoDays)) }]

/** Nothing is changed on readings that contradict each other: the knee is read again where the saddle stands. */
function readAgainStep(situation: StepInputs): Next {
  const checks: Check[] = ['kneeFlexion', ...openChecks(situation).filter((check) => check !== 'kneeFlexion')]
  return {
    kind: 'stop',
    moves: [],
    expect: expectations(situation, situation.current, false),
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
    expect: expectations(situation, situation.current, false),
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
  const moves = movesBetween(current, best)
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
  return { kind: 'change', moves, expect: expectations(situation, best, true), checks, reasons }
}

/** To the end of the scale that ended; the other axis goes where it serves best beside it. */
function outOfRangeStep(situation: StepInputs, end: ScaleEnd, best: SaddlePosition): Next {
  const { current, search } = situation
  const at =
    end.axis === 'seatHeight'
      ? { height: end.nearest, slide: best.height.label === end.nearest.label ? best.slide : current.slide }
      : { height: best.slide.label === end.nearest.label ? best.height : current.height, slide: end.nearest }
  const to = saddlePositionAt(search, at.height, at.slide)
  const moved = movesBetween(current, to)
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

function movesBetween(from: SaddlePosition, to: SaddlePosition): Move[] {
  const move = (axis: AxisName, a: ScalePosition, b: ScalePosition): Move[] =>
    a.label === b.label ? [] : [{ axis, from: a.label, to: b.label, mm: b.mm - a.mm }]
  return [...move('seatHeight', from.height, to.height), ...move('seatSlide', from.slide, to.slide)]
}

function expectations(
  { search, current, started, barSearch, bars, now }: StepInputs,
  to: SaddlePosition,
  moving: boolean,
): Expectation[] {
  const { targets: checks } = search
  const knee = checks.knee(to.seat)
  const plumb = checks.plumb(to.seat)
  const from = started && moving
  const saddle = (position: SaddlePosition) => ({ seatHeight: position.height.mm, seatSlide: position.slide.mm })
  const standing = standingBars(barSearch, saddle(to), now)
  const barsAt = (position: SaddlePosition): BarPosition =>
    barPositionAt(barSearch, saddle(position), standing?.height ?? bars.height, standing ? standing.slide : bars.slide)
  const [barsThere, barsHere] = [barsAt(to), barsAt(current)]
  const reach = reachAt(barSearch, saddle(to), barsThere)
  return [
    {
      check: 'kneeFlexion',
      unit: 'deg',
      ...(from && { from: checks.kneeMedian(current.seat) }),
      to: checks.kneeMedian(to.seat),
      spread: knee.sd,
    },
    {
      check: 'plumb',
      unit: 'mm',
      ...(from && { from: checks.plumbMedian(current.seat) }),
      to: checks.plumbMedian(to.seat),
      spread: plumb.sd,
    },
    {
      check: 'barAgainstSaddle',
      unit: 'mm',
      ...(from && { from: barsHere.gripAboveSeatMm }),
      to: barsThere.gripAboveSeatMm,
      spread: barSearch.bars.aboveSaddleSdMm,
    },
    {
      check: 'reach',
      unit: barSearch.target.reach.by === 'trunk' ? 'deg' : 'mm',
      ...(from && { from: reachAt(barSearch, saddle(current), barsHere).mean }),
      to: reach.mean,
      spread: reach.sd,
    },
  ]
}

const chanceReason = (candidate: SaddlePosition): Reason => ({
  code: 'chance',
  height: candidate.height.label,
  slide: candidate.slide.label,
  chance: candidate.chance,
})

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
      deg: heldFlexionDeg(knee),
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

/** Checks not yet made with saddle and bars where they stand. */
function openChecks({ readings, now, bars, search, evidence, at }: StepInputs): Check[] {
  const sameBars = (label: Label | undefined, wanted: ScalePosition | undefined) =>
    label !== undefined && label === wanted?.label
  return [
    ...(readings.knee ? [] : (['kneeFlexion'] as const)),
    ...(readings.heel ? [] : heelIfItDecides(search)),
    ...(readings.plumb ? [] : plumbIfUsed(search)),
    ...(sameBars(now.barHeight, bars.height) ? [] : (['barAgainstSaddle'] as const)),
    ...(evidence.some((row, i) => isBarCheck(row) && sameBarsAt(at[i], now)) ? [] : (['reach'] as const)),
  ]
}

const sameBarsAt = (then: Marks, now: Marks): boolean =>
  then.barHeight === now.barHeight && then.barSlide === now.barSlide

/** The plumb line, where the studio's school hangs one. */
const plumbIfUsed = ({ school }: SaddleSearch): readonly Check[] => (school.foreAft === 'unused' ? [] : ['plumb'])

/** The heel check, where the studio's school goes by it. */
const heelIfItDecides = ({ school }: SaddleSearch): readonly Check[] =>
  school.heelCheck === 'target' || school.heelCheck === 'ceiling' ? ['heel'] : []
