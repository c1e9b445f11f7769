import { plumbIfUsed } from './openChecks'
import { adviseBars, standingBars, type BarAdvice, type BarPosition } from './bars'
import { expectations } from './expectations'
import type { Check, Next, Reason } from './request'
import { candidatePositions, MIN_GAIN, type SaddlePosition } from './saddleSearch'
import { barsLookedAt, chanceReason, moveBetween, saddleAxes, saddleMoves, type StepInputs } from './stepInputs'

/** A saddle moved for the reach may be right this much less often; ours. */
const REACH_MAY_COST = 0.1

/**
 * What is left to do for the reach once the saddle stands right and the bars were looked at where they stand: the
 * saddle forward and up where the school looks there first, else the pair of bar marks that is clearly better; null
 * where the bars may stay.
 */
export function barStep(situation: StepInputs): Next | null {
  const { barSearch, bars, now, current } = situation
  const standing = standingBars(barSearch, saddleAxes(current), now)
  if (!standing || !barsLookedAt(situation)) return null
  const forward = forwardAndUp(situation)
  if (forward) return forward
  // Where no mark brings the bars within reach they still come as near to it as they can.
  const nearer = reachMiss(situation) !== null && standing.slide?.label !== bars.slide?.label
  if (!nearer && bars.chance - standing.chance < MIN_GAIN) return null
  const moves = barMoves(standing, bars)
  if (moves.length === 0) return null
  return {
    kind: 'change',
    moves,
    expect: expectations(situation, { from: current, to: current, barsTo: bars }).map(({ from, ...rest }) => ({
      ...(isOfBars(rest.check) && { from }),
      ...rest,
    })),
    checks: ['barAgainstSaddle', 'reach'],
    reasons: [barReason(bars)],
  }
}

/** Whether the reach misses with the bars where they are advised: too far although they stand as well as they can. */
export function reachMiss({ bars: { reach } }: Pick<StepInputs, 'bars'>): 'far' | 'near' | null {
  const [least, most] = reach.window
  const [below, above] = reach.by === 'forearm' ? (['near', 'far'] as const) : (['far', 'near'] as const)
  return reach.mean < least ? below : reach.mean > most ? above : null
}

/**
 * Where the bars stay too far even at their nearest: a saddle forward of here that suits the pedals about as well and
 * brings the bars within reach, or null. Common practice, no source: a rider who feels the bike is too long is often
 * only too far back.
 */
function forwardAndUp(situation: StepInputs): Next | null {
  const { search, barSearch, current, bars, now } = situation
  if (search.school.reach !== 'slideFirst' || reachMiss(situation) !== 'far') return null
  const better = candidatePositions(search)
    .filter(({ seat, chance }) => seat.xMm > current.seat.xMm + 1 && chance >= current.chance - REACH_MAY_COST)
    .map((to) => ({ to, bars: adviseBars(barSearch, saddleAxes(to)) }))
  const best = better.reduce<Suited | null>((top, one) => (one.bars.chance > (top?.bars.chance ?? 0) ? one : top), null)
  if (!best || best.bars.chance - bars.chance < MIN_GAIN) return null
  const standing = standingBars(barSearch, saddleAxes(current), now)
  return {
    kind: 'change',
    moves: [...saddleMoves(current, best.to), ...(standing ? barMoves(standing, best.bars) : [])],
    expect: expectations(situation, { from: current, to: best.to, barsTo: best.bars }),
    checks: ['kneeFlexion', ...plumbIfUsed(search), 'barAgainstSaddle', 'reach'],
    reasons: [{ code: 'slideFirst' }, chanceReason(best.to), barReason(best.bars)],
  }
}

type Suited = Readonly<{ to: SaddlePosition; bars: BarAdvice }>

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
