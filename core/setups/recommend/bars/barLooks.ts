import { AXES, LEG_AXES } from '../../../base/adjustments'
import { agreeOn, type Label, type Marks } from '../../../base/conventions'
import { latest } from '../../../riders/evidence/evidence'
import type { Evidence, EvidenceOf } from '../../../riders/evidence/registry'

/** The reach by the rider's elbows and feeling; `mixed` if one means too far and the other too near. */
export type ReachVerdict = 'far' | 'near' | 'good' | 'mixed'

/** What was seen of the bars with saddle and bars at their current marks, the latest of each kind. */
export type BarLooks = Readonly<{
  elbows?: EvidenceOf<'elbows'>['seen']
  feel?: EvidenceOf<'reachFeel'>['seen']
  clearance?: EvidenceOf<'clearance'>['seen']
  /** The forearm gauge or the trunk's angle was read here. */
  isGauged: boolean
  /** Undefined where neither elbows nor feeling were looked at here. */
  reach?: ReachVerdict
}>

const VERDICT = { locked: 'far', stretched: 'far', soft: 'good', right: 'good', cramped: 'near' } as const

/**
 * Combines elbows and feeling. Soft elbows, or a reach that feels right, pass the check alone (common practice, no
 * source).
 */
export function reachVerdict(elbows: BarLooks['elbows'], feel: BarLooks['feel']): ReachVerdict | undefined {
  const verdicts = [elbows, feel].flatMap((seen) => (seen ? [VERDICT[seen]] : []))
  if (verdicts.length === 0) return undefined
  if (verdicts.includes('good')) return 'good'
  return verdicts.every((verdict) => verdict === verdicts[0]) ? verdicts[0] : 'mixed'
}

/** `at[i]` are the positions of the axes at row i, `now` the current ones. */
export function barLooksAt(evidence: readonly Evidence[], at: readonly Marks[], now: Marks): BarLooks {
  const here = evidence.filter((_, i) => AXES.every((axis) => at[i][axis] === now[axis]))
  const elbows = latest(here, 'elbows')?.seen
  const feel = latest(here, 'reachFeel')?.seen
  const clearance = latest(here, 'clearance')?.seen
  const reach = reachVerdict(elbows, feel)
  return {
    ...(elbows && { elbows }),
    ...(feel && { feel }),
    ...(clearance && { clearance }),
    isGauged: here.some(({ kind }) => kind === 'forearmGauge' || kind === 'trunkAngle'),
    ...(reach && { reach }),
  }
}

/** The bars are right as set: elbows soft or the reach feels right, and the knees clear them. */
export const isPassed = ({ reach, clearance }: BarLooks): boolean => reach === 'good' && clearance === 'clear'

/** Something seen here is wrong, so that these marks are not worth going back to. */
export const isFailed = ({ reach, clearance }: BarLooks): boolean =>
  reach === 'far' || reach === 'near' || clearance === 'touches'

/** Whether elbows or feeling were looked at anywhere in this set-up: then they decide the reach, not a rule. */
export const isReachSeen = (evidence: readonly Evidence[]): boolean =>
  evidence.some(({ kind }) => kind === 'elbows' || kind === 'reachFeel')

/**
 * Bar marks that failed a check at the saddle's current marks. `defaultSlide` is the position of a bar slide that
 * nobody named; undefined on a bike without one.
 */
export function failedBarMarks(
  evidence: readonly Evidence[],
  at: readonly Marks[],
  now: Marks,
  defaultSlide: Label | undefined,
): ReadonlySet<string> {
  const same = at.filter((marks) => agreeOn(LEG_AXES, marks, now))
  const failed = same.filter((marks) => isFailed(barLooksAt(evidence, at, marks)))
  return new Set(failed.map((marks) => barKey({ ...marks, barSlide: marks.barSlide ?? defaultSlide })))
}

export const barKey = ({
  barHeight,
  barSlide,
}: Readonly<{ barHeight?: Label; barSlide?: Label | undefined }>): string => `${barHeight} ${barSlide}`
