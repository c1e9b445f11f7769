import type { Need } from './room'

/** A newcomer of a round: set by landmark or not yet, looked at or not yet, and the chance that the height is wrong. */
export type Newcomer = Readonly<{
  id: string
  arrivesMin: number
  isSet: boolean
  isChecked: boolean
  /** Null before anything was set. */
  wrong: number | null
}>

/** What to do with whom next. */
export type RoundStep = Readonly<{ id: string; act: 'setByLandmark' | 'check' }>

/**
 * A round of many newcomers with few hands: first everybody by landmark in the order they come, then those whose
 * chance of being wrong is largest. A rider who was looked at is done.
 */
export function roundSteps(newcomers: readonly Newcomer[]): RoundStep[] {
  const open = newcomers.filter(({ isChecked }) => !isChecked)
  const unset = open.filter(({ isSet }) => !isSet).sort((a, b) => a.arrivesMin - b.arrivesMin)
  const set = open.filter(({ isSet }) => isSet).sort((a, b) => (b.wrong ?? 1) - (a.wrong ?? 1))
  return [
    ...unset.map(({ id }): RoundStep => ({ id, act: 'setByLandmark' })),
    ...set.map(({ id }): RoundStep => ({ id, act: 'check' })),
  ]
}

/** From so many newcomers on a round is offered; ours. */
const ROUND_FROM = 4
/** Where the queue runs past the start, with so many already. */
const ROUND_FROM_LATE = 2

/** Whether a round serves better than one after the other: many newcomers, or a queue that runs past the start. */
export function isRoundOffered(queue: readonly Readonly<{ need: Need; toMin: number }>[]): boolean {
  const newcomers = queue.filter(({ need }) => need === 'new').length
  return newcomers >= ROUND_FROM || (newcomers >= ROUND_FROM_LATE && queue.some(({ toMin }) => toMin > 0))
}
