import { plumbIfUsed } from './openChecks'
import { decideBars, gaugeSide } from '../bars/barDecision'
import type { BarDecision, BarEnd, BarSituation, BarWhy } from '../bars/barSituation'
import { barLooksAt, failedBarMarks } from '../bars/barLooks'
import {
  contactOf,
  describeBars,
  firstBarPosition,
  reachChanceAt,
  standingBars,
  type BarAdvice,
  type BarPosition,
} from '../bars/bars'
import { expectations } from '../request/expectations'
import { defaultBarSlide } from '../history/marksHistory'
import type { Check, Next, Reason } from '../request/request'
import { candidatePositions, type SaddlePosition } from '../saddle/saddleSearch'
import {
  barsLookedAt,
  chanceReason,
  moveBetween,
  saddleAxes,
  saddleMoves,
  type StepInputs,
} from '../request/stepInputs'

/** A saddle moved for the reach may be right this much less often; ours. */
const REACH_MAY_COST = 0.1
/** How much likelier the reach must be right for a saddle moved for it. */
const MIN_REACH_GAIN = 0.05
/** The reach must then be right for at least so many: else another type is the answer. */
const MIN_REACH_CHANCE = 0.2

export type BarInputs = Pick<StepInputs, 'barSearch' | 'evidence' | 'at' | 'now' | 'readings' | 'started' | 'meant'>

/** The inputs of a decision on bars as set, for a saddle at `saddle`; null if their marks are missing. */
function barSituation(
  { barSearch, evidence, at, now, readings }: BarInputs,
  saddle: SaddlePosition,
  isHere: boolean,
): BarSituation | null {
  const axes = saddleAxes(saddle)
  const standing = standingBars(barSearch, axes, now)
  if (!standing) return null
  const looked = evidence.findLastIndex((row, i) => isBarLook(row.kind) && at[i].barHeight === now.barHeight)
  return {
    search: barSearch,
    saddle: axes,
    standing,
    // Looks are valid only at the saddle marks they were taken at.
    looks: isHere ? barLooksAt(evidence, at, now) : { isGauged: false },
    failed: isHere ? failedBarMarks(evidence, at, now, defaultBarSlide(barSearch.bikeType)) : new Set(),
    isSlideSettled: readings.plumbEverTaken,
    isWishNewer: isHere && evidence.findLastIndex(({ kind }) => kind === 'wish') > looked && looked >= 0,
  }
}

const isBarLook = (kind: string): boolean => kind === 'elbows' || kind === 'reachFeel' || kind === 'clearance'

/** Target of the bars, and what it rests on: a first setting, or a decision on bars as set. */
export type StandingBarAdvice = BarAdvice &
  Readonly<{
    decision: BarWhy | 'first'
    end?: BarEnd
    /** Elbows or feeling were seen: the chances beside the bars' marks are of them. */
    byRider: boolean
  }>
/** The advice with what it was decided from; nothing was decided of a first setting, nor of bars left on purpose. */
export type BarPlan = Readonly<{
  advice: StandingBarAdvice
  decided?: Readonly<{ situation: BarSituation; decision: BarDecision }>
}>

/** The bars' place for a saddle at `saddle`; `isHere`: the saddle is already there, so that looks are valid. */
export function planBars(inputs: BarInputs, saddle: SaddlePosition, isHere: boolean): BarPlan {
  const { barSearch, started, meant } = inputs
  const axes = saddleAxes(saddle)
  const situation = started ? barSituation(inputs, saddle, isHere) : null
  if (!situation)
    return {
      advice: {
        ...describeBars(barSearch, axes, firstBarPosition(barSearch, axes)),
        decision: 'first',
        byRider: barSearch.byRider,
      },
    }
  if (meant)
    return {
      advice: {
        ...describeBars(barSearch, axes, situation.standing),
        decision: 'noReason',
        byRider: barSearch.byRider,
      },
    }
  const decision = decideBars(situation)
  const to = decision.kind === 'move' ? decision.to : situation.standing
  return {
    advice: {
      ...describeBars(barSearch, axes, to),
      decision: decision.why,
      byRider: barSearch.byRider,
      ...(decision.kind === 'stay' && decision.end && { end: decision.end }),
    },
    decided: { situation, decision },
  }
}

/**
 * What is left to do for the bars once the saddle is right and they were looked at as set: the saddle
 * forward and up where the school looks there first and the reach was seen to be far, else one axis of the bars; null
 * where they stay.
 */
export function barStep(inputs: StepInputs): Next | null {
  const { current, barSearch, decidedBars } = inputs
  if (!decidedBars || !barsLookedAt(inputs)) return null
  const { situation, decision } = decidedBars
  const forward = forwardAndUp(inputs, situation)
  if (forward) return forward
  if (decision.kind === 'stay') return null
  const { standing } = situation
  const moves = barMoves(standing, decision.to)
  return {
    kind: 'change',
    moves,
    expect: expectations(inputs, { from: current, to: current, barsTo: decision.to }).filter(({ check }) =>
      isOfBars(check),
    ),
    checks: ['barAgainstSaddle', 'reach', 'clearance'],
    reasons: [
      ...looksReason(situation),
      ...(decision.why === 'height' ? [{ code: 'barHeightRule', posture: barSearch.target.posture } as const] : []),
      barReason(decision.to),
    ],
    barsWhy: decision.why,
  }
}

/** What was seen of the bars, as a reason. */
export function looksReason({ looks: { elbows, feel, clearance } }: BarSituation): Reason[] {
  return elbows || feel || clearance
    ? [{ code: 'barsSeen', ...(elbows && { elbows }), ...(feel && { feel }), ...(clearance && { clearance }) }]
    : []
}

/**
 * Where the reach was seen or read to be far: a saddle forward of here that suits the pedals about as well and brings
 * the bars within reach, or null. Common practice, no source: a rider who feels the bike is too long is often only too
 * far back.
 */
function forwardAndUp(inputs: StepInputs, situation: BarSituation): Next | null {
  const { search, barSearch, current, readings } = inputs
  const { looks, standing } = situation
  const isFar = looks.reach === 'far' || (!looks.reach && looks.isGauged && gaugeSide(situation) === 'far')
  if (search.school.reach !== 'slideFirst' || !isFar || looks.clearance === 'touches') return null
  const reachChance = (saddle: SaddlePosition, bars: BarPosition) =>
    reachChanceAt(barSearch, contactOf(barSearch, saddleAxes(saddle), bars))
  const here = reachChance(current, standing)
  // A check that was read to be right stays right.
  const preservesSaddleTargets = ({ seat }: SaddlePosition) =>
    (!readings.kneeInRange || search.tolerant.kneeChance(seat) >= MIN_PRESERVED_CHANCE) &&
    (!readings.plumbInRange || search.tolerant.plumbChance(seat) >= MIN_PRESERVED_CHANCE)
  const better = candidatePositions(search)
    .filter(({ seat, chance }) => seat.xMm > current.seat.xMm + 1 && chance >= current.chance - REACH_MAY_COST)
    .filter(preservesSaddleTargets)
    .map((to) => ({ to, chance: reachChance(to, standing) }))
  const best = better.reduce<(typeof better)[number] | null>((a, b) => (a && a.chance >= b.chance ? a : b), null)
  if (!best || best.chance < MIN_REACH_CHANCE || best.chance - here < MIN_REACH_GAIN) return null
  return {
    kind: 'change',
    moves: saddleMoves(current, best.to),
    expect: expectations(inputs, { from: current, to: best.to }),
    checks: ['kneeFlexion', ...plumbIfUsed(search), 'barAgainstSaddle', 'reach'],
    reasons: [{ code: 'slideFirst' }, chanceReason(best.to), ...looksReason(situation)],
    forReach: true,
  }
}
/** A check read to be right must stay so for most riders like this one. */
const MIN_PRESERVED_CHANCE = 0.5

const barMoves = (from: BarPosition, to: BarPosition) => [
  ...moveBetween('barHeight', from.height, to.height),
  ...moveBetween('barSlide', from.slide, to.slide),
]

const isOfBars = (check: Check): boolean => check === 'barAgainstSaddle' || check === 'reach'

const barReason = ({ height, slide, chance }: BarPosition): Reason => ({
  code: 'barChance',
  height: height.label,
  ...(slide && { slide: slide.label }),
  chance,
})
