import { and, count, desc, eq, inArray, isNotNull, isNull, like, sql } from 'drizzle-orm'
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import type { Scope } from '../../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../../platform/db/connection'
import {
  classCue,
  classFollowUp,
  classLook,
  classRider,
  bikeAssignment,
  bikeAssignmentLog,
  classNote,
  markMove,
} from '../../classes/tables'
import { complaint, programme, trial } from '../../comfort/tables'
import { memberLink, memberMessage } from '../../riders/memberPage/tables'
import { registerCurrent, registerEntry, setup, riderFile } from '../../setups/tables'
import { consent, memberWord, member, memberMerge, riderLimit, riderPlan } from '../../riders/tables'
import { findMember, type MemberRecord } from '../../riders/members/members'

/** `from` is merged into `into`: everything of theirs is the other's afterwards. */
export type Merge = Readonly<{ from: string; into: string }>

/** What a merge would move. */
export type MergePreview = Readonly<{
  from: MemberRecord
  into: MemberRecord
  setups: number
  numbers: number
  notes: number
  classes: number
}>

/** `gone`: the studio has no such member; `same`: both are one. */
export type MergeResult = Readonly<{ outcome: 'kept' | 'gone' | 'same' }>

/** Rows that are simply the other member's afterwards: no key of these tables names the member. */
const MOVED: readonly (MySqlTable & Readonly<{ memberId: AnyMySqlColumn }>)[] = [
  setup,
  registerEntry,
  classNote,
  classLook,
  markMove,
  consent,
  riderLimit,
  riderPlan,
  bikeAssignmentLog,
  memberMessage,
  memberLink,
  complaint,
  trial,
  programme,
  riderFile,
  memberMerge,
]

/** What merging two members would move; null where the studio has not both, or both are one. */
export async function previewMerge(db: DbExecutor, scope: Scope, { from, into }: Merge): Promise<MergePreview | null> {
  const [a, b] = [await findMember(db, scope, from), await findMember(db, scope, into)]
  if (!a || !b || a.id === b.id) return null
  const counted = async (table: (typeof MOVED)[number] | typeof classRider) =>
    (await db.select({ n: count() }).from(table).where(eq(table.memberId, from)))[0].n
  return {
    from: a,
    into: b,
    setups: await counted(setup),
    numbers: await counted(registerEntry),
    notes: await counted(classNote),
    classes: await counted(classRider),
  }
}

/**
 * Merges one member into another, whole or not at all. Where both have numbers for the same, the later ones are in
 * force; where both are in a class, the seat of `into` stays. The old id leads to the other member from then on.
 */
export async function mergeMembers(db: Database, scope: Scope, input: Merge, now: Date): Promise<MergeResult> {
  if (input.from === input.into) return { outcome: 'same' }
  return withTransaction(db, async (tx): Promise<MergeResult> => {
    const { from, into } = input
    const both = and(inArray(member.id, [from, into]), eq(member.studioId, scope.studioId))
    const locked = await tx.select().from(member).where(both).orderBy(member.id).for('update')
    const [a, b] = [locked.find(({ id }) => id === from), locked.find(({ id }) => id === into)]
    if (!a || !b) return { outcome: 'gone' }
    await freeOpenSetups(tx, input)
    await mergeClasses(tx, input)
    await mergeCurrentNumbers(tx, input)
    for (const table of MOVED)
      await tx
        .update(table)
        .set({ memberId: into } as never)
        .where(eq(table.memberId, from))
    await renameConcerned(tx, scope, input)
    await tx.delete(memberWord).where(eq(memberWord.memberId, from))
    await tx.delete(member).where(eq(member.id, from))
    const { number, email, statureMm } = b
    await tx
      .update(member)
      .set({
        number: number ?? a.number,
        email: email ?? a.email,
        statureMm: statureMm ?? a.statureMm,
        latestEntryId: await latestEntry(tx, into),
        latestSetupId: await latestSetup(tx, into),
      })
      .where(eq(member.id, into))
    const { studioId, userId } = scope
    await tx
      .insert(memberMerge)
      .values({ id: from, studioId, memberId: into, name: a.name, createdAt: now, createdBy: userId })
    return { outcome: 'kept' }
  })
}

/** Open set-ups stay open under the other's name; on a bike where the other has one too, under a key of their own. */
async function freeOpenSetups(tx: DbExecutor, { from, into }: Merge): Promise<void> {
  const openOf = (memberId: string) =>
    tx
      .select({ id: setup.id, bikeId: setup.bikeId })
      .from(setup)
      .where(and(eq(setup.memberId, memberId), isNull(setup.finishedAt)))
  const taken = new Set((await openOf(into)).map(({ bikeId }) => bikeId))
  for (const { id, bikeId } of await openOf(from))
    await tx
      .update(setup)
      .set({ openKey: taken.has(bikeId) ? `${id}/merged` : `${into}/${bikeId}` })
      .where(eq(setup.id, id))
}

/** Places in classes and lines after them: what both have is `into`'s. */
async function mergeClasses(tx: DbExecutor, { from, into }: Merge): Promise<void> {
  for (const table of [classRider, bikeAssignment, classFollowUp] as const) {
    const own = await tx.select({ classId: table.classId }).from(table).where(eq(table.memberId, into))
    const classes = own.map(({ classId }) => classId)
    if (classes.length > 0) await tx.delete(table).where(and(eq(table.memberId, from), inArray(table.classId, classes)))
    await tx.update(table).set({ memberId: into }).where(eq(table.memberId, from))
  }
}

/** Of numbers that both have for one type and purpose the later ones are in force; all stay on the time line. */
async function mergeCurrentNumbers(tx: DbExecutor, { from, into }: Merge): Promise<void> {
  const currentOf = (memberId: string) =>
    tx
      .select({
        lineId: registerCurrent.lineId,
        purpose: registerCurrent.purpose,
        entryId: registerCurrent.entryId,
        createdAt: registerEntry.createdAt,
      })
      .from(registerCurrent)
      .innerJoin(registerEntry, eq(registerEntry.id, registerCurrent.entryId))
      .where(eq(registerCurrent.memberId, memberId))
  const own = await currentOf(into)
  for (const { lineId, purpose, createdAt } of await currentOf(from)) {
    const rival = own.find((one) => one.lineId === lineId && one.purpose === purpose)
    if (!rival) continue
    const loser = rival.createdAt >= createdAt ? from : into
    await tx
      .delete(registerCurrent)
      .where(
        and(
          eq(registerCurrent.memberId, loser),
          eq(registerCurrent.lineId, lineId),
          eq(registerCurrent.purpose, purpose),
        ),
      )
  }
  await tx.update(registerCurrent).set({ memberId: into }).where(eq(registerCurrent.memberId, from))
}

/** Cues to the room name whom they concerned. */
async function renameConcerned(tx: DbExecutor, scope: Scope, { from, into }: Merge): Promise<void> {
  const named = await tx
    .select({ id: classCue.id, concerned: classCue.concerned })
    .from(classCue)
    .where(and(eq(classCue.studioId, scope.studioId), like(classCue.concerned, `%"${from}"%`)))
  for (const { id, concerned } of named)
    await tx
      .update(classCue)
      .set({ concerned: [...new Set(concerned.map((one) => (one === from ? into : one)))] })
      .where(eq(classCue.id, id))
}

/** The member's latest numbers of any purpose; null without any. */
async function latestEntry(tx: DbExecutor, memberId: string): Promise<string | null> {
  const [found] = await tx
    .select({ id: registerEntry.id })
    .from(registerEntry)
    .where(eq(registerEntry.memberId, memberId))
    .orderBy(desc(registerEntry.createdAt), desc(sql`${registerEntry.purpose} = 'usual'`), desc(registerEntry.id))
    .limit(1)
  return found?.id ?? null
}

/** The set-up the member saved last; null without any. */
async function latestSetup(tx: DbExecutor, memberId: string): Promise<string | null> {
  const [found] = await tx
    .select({ id: setup.id })
    .from(setup)
    .where(and(eq(setup.memberId, memberId), isNotNull(setup.finishedAt)))
    .orderBy(desc(setup.finishedAt), desc(setup.id))
    .limit(1)
  return found?.id ?? null
}
