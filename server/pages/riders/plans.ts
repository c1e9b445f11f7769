import { and, eq, gt, inArray, isNull, lte } from 'drizzle-orm'
import { axisOf } from '../../../core/bikes/bike/bike'
import { positionsOf } from '../../../core/bikes/scale/scale'
import { formatPlan, formatPlanOnTile, type StarterMarks } from '../../../core/messages/riders/plans'
import { formatLabel, formatSteps } from '../../../core/messages/words/labels'
import type { Label } from '../../../core/base/conventions'
import { studioDay } from '../../../core/messages/words/dates'
import { limitEffects } from '../../../core/riders/limits/limits'
import { planState, type Plan, type PlanKind } from '../../../core/riders/plans/plan'
import { bikeAssignment } from '../../classes/tables'
import { studioClass } from '../../classes/rooms/tables'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { listLimits } from '../../riders/limits'
import { listPlans, type StoredPlan } from '../../riders/plans'
import { byDisplayPriority, currentEntries, type RegisterEntry } from '../../setups/register'
import { getStudio } from '../../studio/studio'

/** A plan of a rider that is due, or waits for its day. */
export type RiderPlan = Readonly<{
  id: string
  memberId: string
  kind: PlanKind
  isDue: boolean
  /** "Starter: raise the seat 6 → 7, one mark" */
  text: string
  /** The same on a tile: "raise the seat 6 → 7". */
  short: string
  /** Of a starter: the type, and the distance to raise the seat by, mm along the axis. */
  raise: Readonly<{ lineId: string; mm: number }> | null
}>

/**
 * The plans of these members on the day of `at`, the oldest first. Plans that are over, as a starter whose seat was
 * raised, are left out. `seatAt` gives seat heights that count instead of the present ones, by member.
 */
export async function plansOf(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  at: Date,
  seatAt?: ReadonlyMap<string, Label>,
): Promise<RiderPlan[]> {
  const plans = await listPlans(db, scope, memberIds)
  if (plans.length === 0) return []
  const ids = [...new Set(plans.map(({ memberId }) => memberId))]
  const { timeZone } = await getStudio(db, scope)
  const [entries, limits, rides] = [
    byDisplayPriority(await currentEntries(db, scope, ids)),
    await listLimits(db, scope, ids),
    await ridesSince(db, scope, plans, at),
  ]
  const today = studioDay(at, timeZone)
  return plans.flatMap(({ id, memberId, plan, createdAt, lookedAt }): RiderPlan[] => {
    const own = entries.filter((entry) => entry.memberId === memberId)
    const starter = plan.kind === 'starter' ? starterOf(own, plan, seatAt?.get(memberId)) : null
    const effects = limitEffects(
      limits.filter((one) => one.memberId === memberId).map(({ limit }) => limit),
      today,
    )
    const setUp = own.filter(({ source }) => source === 'setUp').map((entry) => entry.createdAt)
    const looks = plan.kind === 'recheck' ? [lookedAt, ...setUp] : [lookedAt]
    const state = planState(plan, {
      today,
      rides: rides.filter((ride) => ride.memberId === memberId && ride.startsAt > createdAt).length,
      leftMm: starter?.mm ?? null,
      isPregnant: effects.health.includes('pregnant'),
      lookedOn: looks.flatMap((one) => (one ? [studioDay(one, timeZone)] : [])),
    })
    if (state.state === 'over') return []
    return [
      {
        id,
        memberId,
        kind: plan.kind,
        isDue: state.state === 'due',
        text: formatPlan(plan, state, starter),
        short: formatPlanOnTile(plan, starter),
        raise: starter && { lineId: plan.lineId!, mm: starter.mm },
      },
    ]
  })
}

/** When plans are judged for a class: at its start, and now once it runs. */
export const atOrAfter = (now: Date, { startsAt }: Readonly<{ startsAt: Date }>): Date =>
  now > startsAt ? now : startsAt

/** Plans of these members that are due at `at`, by member; see `plansOf`. */
export async function duePlans(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  at: Date,
  seatAt?: ReadonlyMap<string, Label>,
): Promise<ReadonlyMap<string, readonly RiderPlan[]>> {
  const due = (await plansOf(db, scope, memberIds, at, seatAt)).filter(({ isDue }) => isDue)
  return new Map(
    [...new Set(due.map(({ memberId }) => memberId))].map((id) => [id, due.filter((one) => one.memberId === id)]),
  )
}

/** A starter's seat height, now or as given, and what is left to its target, mm; null without numbers for its type. */
function starterOf(
  entries: readonly RegisterEntry[],
  { lineId, to }: Plan,
  seat?: Label,
): (StarterMarks & Readonly<{ mm: number }>) | null {
  const entry = entries.find((one) => one.lineId === lineId)
  const scale = entry && axisOf(entry.type, 'seatHeight')?.scale
  if (!entry || !scale) return null
  const position = (label: string | undefined) => positionsOf(scale).find((one) => one.label === label)
  const [here, there] = [position(seat ?? entry.marks.seatHeight), position(to)]
  if (!here || !there) return null
  const name = (label: string) => formatLabel(entry.type, 'seatHeight', label)
  const mm = there.mm - here.mm
  const way = formatSteps(scale, here.label, there.label, mm, 'metric')
  return { from: name(here.label), to: name(there.label), way, mm }
}

/** Classes that riders with a starter sat in and that began since the earliest of their plans, up to `at`. */
async function ridesSince(
  db: DbExecutor,
  scope: Scope,
  plans: readonly StoredPlan[],
  at: Date,
): Promise<readonly Readonly<{ memberId: string; startsAt: Date }>[]> {
  const starters = plans.filter(({ plan }) => plan.kind === 'starter')
  if (starters.length === 0) return []
  const since = new Date(Math.min(...starters.map(({ createdAt }) => createdAt.getTime())))
  return db
    .select({ memberId: bikeAssignment.memberId, startsAt: studioClass.startsAt })
    .from(bikeAssignment)
    .innerJoin(studioClass, eq(studioClass.id, bikeAssignment.classId))
    .where(
      and(
        inArray(bikeAssignment.memberId, [...new Set(starters.map(({ memberId }) => memberId))]),
        eq(bikeAssignment.studioId, scope.studioId),
        isNull(studioClass.cancelledAt),
        lte(studioClass.startsAt, at),
        gt(studioClass.startsAt, since),
      ),
    )
}
