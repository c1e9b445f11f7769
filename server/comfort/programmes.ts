import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm'
import {
  isKnownProgramme,
  programmeState,
  tickIssue,
  type Programme,
  type ProgrammeState,
  type Tick,
} from '../../core/comfort/programme/programme'
import { RED_FLAG } from '../../core/classes/watch/comfort'
import { redFlagsOf } from '../../core/comfort/model/redFlags'
import type { Scope } from '../platform/accounts/scope'
import { user } from '../platform/accounts/tables'
import type { DbExecutor } from '../platform/db/connection'
import { insertOnce } from '../platform/db/insertOnce'
import { isDuplicate } from '../platform/db/errors'
import { sealRow } from '../platform/sealing/sealed'
import { classNote } from '../classes/tables'
import { todayOf } from '../riders/limits'
import type { LinkOwner } from '../riders/memberPage/links'
import { asComplaint, listComplaintsOf } from './complaints'
import { stopsOf } from './stops'
import { programme, programmeTick } from './tables'
import { lockMember } from './trialChanges'

/** Running programmes of one rider; more are no help. */
export const MAX_RUNNING = 2
/** Programmes that are read at once. */
const MAX_PROGRAMMES = 20

/** A programme as given: what of, by whom, what was ticked, and whether it runs. */
export type StoredProgramme = Readonly<{
  id: string
  memberId: string
  programme: Programme
  ticks: readonly Tick[]
  state: ProgrammeState
  createdAt: Date
  createdBy: string
}>
/** The part of a scope that a member's link has as well. */
type OfStudio = Pick<Scope, 'studioId'>

/** The latest programmes of a member, the latest first, with their state on the studio's day. */
export async function listProgrammes(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  now: Date,
): Promise<StoredProgramme[]> {
  const stored = await db
    .select({
      id: programme.id,
      memberId: programme.memberId,
      programme: programme.body,
      createdAt: programme.createdAt,
      createdBy: user.name,
      resumedAt: programme.resumedAt,
      endedAt: programme.endedAt,
    })
    .from(programme)
    .innerJoin(user, eq(user.id, programme.createdBy))
    .where(and(eq(programme.memberId, memberId), eq(programme.studioId, scope.studioId)))
    .orderBy(desc(programme.createdAt), desc(programme.id))
    .limit(MAX_PROGRAMMES)
  const known = stored.filter((one) => isKnownProgramme(one.programme))
  if (known.length === 0) return []
  const ids = known.map(({ id }) => id)
  const ticks = await db
    .select({ programmeId: programmeTick.programmeId, item: programmeTick.item, day: programmeTick.day })
    .from(programmeTick)
    .where(and(inArray(programmeTick.programmeId, ids), eq(programmeTick.studioId, scope.studioId)))
    .orderBy(asc(programmeTick.day))
  const today = await todayOf(db, scope, now)
  const flaggedAt = known.some(({ endedAt }) => endedAt === null) ? await lastFlagAt(db, scope, memberId, now) : null
  return known.map(({ resumedAt, endedAt, ...one }) => ({
    ...one,
    ticks: ticks.filter(({ programmeId }) => programmeId === one.id).map(({ item, day }) => ({ item, day })),
    state: programmeState(one.programme, {
      today,
      isEnded: endedAt !== null,
      isFlagged: flaggedAt !== null && flaggedAt >= (resumedAt ?? one.createdAt),
    }),
  }))
}

/** When the latest red flag of a member came up, also one that is settled since; `now` while one is open. */
async function lastFlagAt(db: DbExecutor, scope: Scope, memberId: string, now: Date): Promise<Date | null> {
  if ((await stopsOf(db, scope, [memberId], now)).has(memberId)) return now
  const complaints = await listComplaintsOf(db, scope, [memberId])
  const [tapped] = await db
    .select({ at: classNote.createdAt })
    .from(classNote)
    .where(
      and(
        eq(classNote.memberId, memberId),
        eq(classNote.studioId, scope.studioId),
        eq(classNote.sign, RED_FLAG),
        isNull(classNote.withdrawnAt),
      ),
    )
    .orderBy(desc(classNote.createdAt))
    .limit(1)
  const told = complaints
    .filter((one) => redFlagsOf(asComplaint(one), { health: one.health, others: [] }).length > 0)
    .map(({ createdAt }) => createdAt.getTime())
  const latest = Math.max(tapped?.at.getTime() ?? -Infinity, ...told)
  return Number.isFinite(latest) ? new Date(latest) : null
}

/** `flagged`: a red flag is open; `tooMany`: `MAX_RUNNING` run already; `unknown`: there is no such exercise. */
export type ProgrammeResult = Readonly<{
  outcome: 'kept' | 'idTaken' | 'gone' | 'flagged' | 'tooMany' | 'unknown'
}>

/** Gives a rider a programme from today on, within the caller's transaction. Idempotent by id and content. */
export async function giveProgramme(
  tx: DbExecutor,
  scope: Scope,
  { id, memberId, ...given }: Readonly<{ id: string; memberId: string }> & Omit<Programme, 'since'>,
  now: Date,
): Promise<ProgrammeResult> {
  if (!(await lockMember(tx, scope, memberId))) return { outcome: 'gone' }
  const body: Programme = { ...given, since: await todayOf(tx, scope, now) }
  if (!isKnownProgramme(body)) return { outcome: 'unknown' }
  const own = { memberId: programme.memberId, studioId: programme.studioId, body: programme.body }
  const find = async () => (await tx.select(own).from(programme).where(eq(programme.id, id)))[0]
  if (!(await find())) {
    if ((await stopsOf(tx, scope, [memberId], now)).has(memberId)) return { outcome: 'flagged' }
    const running = (await listProgrammes(tx, scope, memberId, now)).filter(({ state }) => isOpen(state))
    if (running.length >= MAX_RUNNING) return { outcome: 'tooMany' }
  }
  const { studioId, userId } = scope
  const row = { id, studioId, memberId, body, createdAt: now, createdBy: userId }
  return insertOnce(
    () => tx.insert(programme).values(sealRow(programme, studioId, row)),
    async () => {
      const found = await find()
      // Sent again on the next day it is still the same.
      return found && { ...found, body: { ...found.body, since: body.since } }
    },
    { memberId, studioId, body },
  )
}

const isOpen = ({ state }: ProgrammeState): boolean => state === 'running' || state === 'stopped'

const ofMember = (scope: OfStudio, { id, memberId }: Readonly<{ id: string; memberId: string }>) =>
  and(eq(programme.id, id), eq(programme.memberId, memberId), eq(programme.studioId, scope.studioId))

/** Ends a programme; ended twice it stays as it was. */
export async function endProgramme(
  tx: DbExecutor,
  scope: Scope,
  of: Readonly<{ id: string; memberId: string }>,
  now: Date,
): Promise<void> {
  await tx
    .update(programme)
    .set({ endedAt: now, endedBy: scope.userId })
    .where(and(ofMember(scope, of), isNull(programme.endedAt)))
}

/** Takes back the end of a programme. */
export async function reopenProgramme(
  tx: DbExecutor,
  scope: Scope,
  of: Readonly<{ id: string; memberId: string }>,
): Promise<void> {
  await tx.update(programme).set({ endedAt: null, endedBy: null }).where(ofMember(scope, of))
}

/** Takes up a programme that a red flag stopped. `flagged`: one is still open. */
export async function resumeProgramme(
  tx: DbExecutor,
  scope: Scope,
  of: Readonly<{ id: string; memberId: string }>,
  now: Date,
): Promise<Readonly<{ outcome: 'kept' | 'flagged' }>> {
  if ((await stopsOf(tx, scope, [of.memberId], now)).has(of.memberId)) return { outcome: 'flagged' }
  await tx.update(programme).set({ resumedAt: now }).where(ofMember(scope, of))
  return { outcome: 'kept' }
}

type OwnTick = Readonly<{ id: string; programmeId: string }> & Tick

/** A programme of the member that runs now; null for any other. */
async function runningOf(db: DbExecutor, owner: LinkOwner, programmeId: string, now: Date) {
  const scope: Scope = { studioId: owner.studioId, userId: '', role: 'desk' }
  const found = (await listProgrammes(db, scope, owner.memberId, now)).find(({ id }) => id === programmeId)
  return found?.state.state === 'running' ? { found, today: await todayOf(db, scope, now) } : null
}

/** Ticks a day of an exercise, from the member's own page; twice is once. `over`: the programme does not run. */
export async function tickExercise(
  tx: DbExecutor,
  owner: LinkOwner,
  { id, programmeId, item, day }: OwnTick,
  now: Date,
): Promise<Readonly<{ outcome: 'kept' | 'over' | 'unreadable' }>> {
  const running = await runningOf(tx, owner, programmeId, now)
  if (!running) return { outcome: 'over' }
  if (tickIssue(running.found.programme, { item, day }, running.today)) return { outcome: 'unreadable' }
  const { studioId, linkId } = owner
  try {
    await tx.insert(programmeTick).values({ id, studioId, programmeId, item, day, linkId, createdAt: now })
  } catch (error) {
    if (!isDuplicate(error)) throw error
  }
  return { outcome: 'kept' }
}

/** Takes a day of an exercise back. `over`: the programme does not run. */
export async function untickExercise(
  tx: DbExecutor,
  owner: LinkOwner,
  { programmeId, item, day }: Omit<OwnTick, 'id'>,
  now: Date,
): Promise<Readonly<{ outcome: 'kept' | 'over' }>> {
  if (!(await runningOf(tx, owner, programmeId, now))) return { outcome: 'over' }
  await tx
    .delete(programmeTick)
    .where(
      and(
        eq(programmeTick.programmeId, programmeId),
        eq(programmeTick.studioId, owner.studioId),
        eq(programmeTick.item, item),
        eq(programmeTick.day, day),
      ),
    )
  return { outcome: 'kept' }
}
