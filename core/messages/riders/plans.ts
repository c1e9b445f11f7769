import type { Plan, PlanIssue, PlanKind, PlanState } from '../../riders/plans/plan'

/** Plans that somebody records by hand. */
export const PLAN_CHOICES = ['promise', 'cleats', 'shoes'] as const
export type PlanChoice = (typeof PLAN_CHOICES)[number]
export const PLAN_CHOICE_NAME: Readonly<Record<PlanChoice, string>> = Object.freeze({
  promise: 'A promise',
  cleats: 'Cleats, by their age',
  shoes: 'Shoes, by their age',
})

/** The seat height of a starter as people write it, now and to raise to, and the way: "one mark". */
export type StarterMarks = Readonly<{ from: string; to: string; way: string }>

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`

const DUE: Readonly<Record<Exclude<PlanKind, 'starter' | 'promise'>, string>> = {
  recheck: 'Pregnancy: look at the set-up again',
  cleats: 'Look at the cleats: wear, bolts and place',
  shoes: 'Look at the shoes: sole and closure',
}

/**
 * "Starter: raise the seat 6 → 7, one mark", "Starter at 6: 2 more rides, then 7", "Promised: look at the left knee",
 * "Look at the cleats: wear, bolts and place, in 12 days".
 */
export function formatPlan({ kind, words }: Plan, state: PlanState, starter: StarterMarks | null): string {
  const left = state.state === 'waiting' ? state.left : 0
  if (kind === 'starter') {
    if (!starter) return 'Starter'
    const { from, to, way } = starter
    return left > 0
      ? `Starter at ${from}: ${count(left, 'more ride')}, then ${to}`
      : `Starter: raise the seat ${from} → ${to}, ${way}`
  }
  const said = kind === 'promise' ? `Promised: ${words ?? ''}` : DUE[kind]
  return left > 0 ? `${said}, in ${count(left, 'day')}` : said
}

const ON_TILE: Readonly<Record<PlanKind, string>> = {
  starter: 'raise the seat',
  recheck: 're-check',
  cleats: 'cleats',
  shoes: 'shoes',
  promise: 'promised',
}

/** A plan that is due, on a tile: "raise the seat 6 → 7", "promised: look at the left knee". */
export function formatPlanOnTile({ kind, words }: Plan, starter: StarterMarks | null): string {
  if (kind === 'starter' && starter) return `${ON_TILE.starter} ${starter.from} → ${starter.to}`
  return kind === 'promise' && words ? `${ON_TILE.promise}: ${words}` : ON_TILE[kind]
}

/** Why a plan was refused, to follow "Not kept: ". */
export const PLAN_ISSUE_TEXT: Readonly<Record<PlanIssue, string>> = Object.freeze({
  missing: 'a detail of it is missing',
  noDate: 'it needs a day',
  past: 'its day has passed',
  future: 'its day is still to come',
  tooFar: 'its day lies too far off',
})
