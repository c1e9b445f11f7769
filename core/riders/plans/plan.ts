import { Type } from '@sinclair/typebox'
import { labelSchema } from '../../base/conventions'
import { closed, oneOf, type Plain } from '../../base/schema'
import { daysBetween } from '../limits/limits'

/** What is to be done for a rider later. */
export const PLAN_KINDS = ['starter', 'recheck', 'cleats', 'shoes', 'promise'] as const
export type PlanKind = (typeof PLAN_KINDS)[number]

const daySchema = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' })

const ridesSchema = Type.Integer({ minimum: 1, maximum: 20 })

/** What a set-up plans of numbers that are low to begin with. */
export const starterSchema = closed({ to: labelSchema, afterRides: ridesSchema })

/** One plan; which fields belong to which kind: `NEEDED_OF_PLAN`. Days are YYYY-MM-DD on the studio's clock. */
export const planSchema = closed({
  kind: oneOf(PLAN_KINDS),
  /** Of `recheck`, `cleats` and `shoes`: the day its interval counts from. */
  since: Type.Optional(daySchema),
  /** Of a promise: the day it comes due. */
  due: Type.Optional(daySchema),
  words: Type.Optional(Type.String({ minLength: 1, maxLength: 200 })),
  /** Of a starter: the type its numbers are for, the seat height to raise to, and after how many rides. */
  lineId: Type.Optional(Type.String({ minLength: 1, maxLength: 64 })),
  to: Type.Optional(labelSchema),
  afterRides: Type.Optional(ridesSchema),
})
export type Plan = Plain<typeof planSchema>
type Detail = 'since' | 'due' | 'words' | 'lineId' | 'to' | 'afterRides'

/** Required details of each kind. */
export const NEEDED_OF_PLAN: Readonly<Record<PlanKind, readonly Detail[]>> = Object.freeze({
  starter: ['lineId', 'to', 'afterRides'],
  recheck: ['since'],
  cleats: ['since'],
  shoes: ['since'],
  promise: ['due', 'words'],
})
/** Kinds of which a rider has one at a time, a starter one a type: a new one ends the one before. */
export const SINGLE_PLANS: readonly PlanKind[] = ['starter', 'recheck', 'cleats', 'shoes']
/** Days after which it is looked at again, and again after each look. Common practice, no source. */
export const INTERVAL_DAYS = Object.freeze({ recheck: 42, cleats: 180, shoes: 730 } as const)
/** Rides until a starter is raised, unless the plan names another number. Common practice, no source. */
export const STARTER_RIDES = 3
/** A promise comes due within so many days. */
const MAX_AHEAD_DAYS = 730
const MAX_SINCE_DAYS = 3650

/** Whether a plan comes back after each look, instead of being done with. */
export const isRecurring = (kind: PlanKind): kind is keyof typeof INTERVAL_DAYS => kind in INTERVAL_DAYS

/** Whether a plan has the details of its kind; an archive may bring one without. */
export const isWholePlan = (plan: Plan): boolean =>
  PLAN_KINDS.includes(plan.kind) && NEEDED_OF_PLAN[plan.kind].every((detail) => plan[detail] !== undefined)

/** Why a plan is refused. */
export type PlanIssue = 'missing' | 'noDate' | 'past' | 'future' | 'tooFar'

/** What is wrong with a plan recorded on a day (YYYY-MM-DD); null where nothing is. */
export function planIssue(plan: Plan, today: string): PlanIssue | null {
  if (!isWholePlan(plan)) return 'missing'
  if (plan.words !== undefined && plan.words.trim() === '') return 'missing'
  if (plan.due !== undefined) {
    const days = daysBetween(today, plan.due)
    if (Number.isNaN(days)) return 'noDate'
    if (days < 0) return 'past'
    if (days > MAX_AHEAD_DAYS) return 'tooFar'
  }
  if (plan.since !== undefined) {
    const days = daysBetween(plan.since, today)
    if (Number.isNaN(days)) return 'noDate'
    if (days < 0) return 'future'
    if (days > MAX_SINCE_DAYS) return 'tooFar'
  }
  return null
}

/** What decides whether a plan is due. */
export type PlanFacts = Readonly<{
  /** YYYY-MM-DD on the studio's clock. */
  today: string
  /** Classes ridden since the plan was recorded. */
  rides: number
  /** Of a starter: mm along the axis from the present seat height up to `to`; null without numbers for its type. */
  leftMm: number | null
  /** Whether a pregnancy is recorded and not over. */
  isPregnant: boolean
  /** The latest days of a look: ticked, or by a set-up; YYYY-MM-DD. */
  lookedOn: readonly string[]
}>

/**
 * `over`: done without a tick, as a starter whose seat is up; `waiting`: `left` rides of a starter, days of any other
 * kind; `due`: since `late` rides or days.
 */
export type PlanState =
  Readonly<{ state: 'over' }> | Readonly<{ state: 'waiting'; left: number }> | Readonly<{ state: 'due'; late: number }>

const OVER: PlanState = { state: 'over' }
const after = (left: number): PlanState =>
  left > 0 ? { state: 'waiting', left } : { state: 'due', late: Math.abs(left) }

/** The state of a plan on a day. A plan without the details of its kind is over. */
export function planState(plan: Plan, { today, rides, leftMm, isPregnant, lookedOn }: PlanFacts): PlanState {
  if (!isWholePlan(plan)) return OVER
  if (plan.kind === 'starter')
    return leftMm === null || leftMm <= 0 ? OVER : after((plan.afterRides ?? STARTER_RIDES) - rides)
  if (plan.kind === 'recheck' && !isPregnant) return OVER
  const { kind } = plan
  if (!isRecurring(kind)) return after(daysBetween(today, plan.due!))
  const sinceLook = Math.min(...[plan.since!, ...lookedOn].map((day) => daysBetween(day, today)))
  return after(INTERVAL_DAYS[kind] - sinceLook)
}
