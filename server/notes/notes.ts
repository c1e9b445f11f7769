import { and, desc, eq, gte, isNull, or } from 'drizzle-orm'
import type { DbExecutor } from '../db/connection'
import { insertOnce, type Written } from '../db/insertOnce'
import { sameContent } from '../db/sameContent'
import { bike, bikeAssignment, classNote, member, seating, user } from '../db/schema'

export type Side = 'left' | 'right' | 'both'

/** Who sits on a bike on a day. */
export type BikeAssignment = Readonly<{ bikeId: string; memberId: string; name: string }>

export type Note = Readonly<{
  id: string
  memberId: string
  bikeNumber: number
  region: string
  sign: string
  side: Side
  madeAt: Date
  by: string
}>

/** Who sits where on a studio's day; a free bike is not among them. */
export async function assignmentsOn(db: DbExecutor, day: string): Promise<BikeAssignment[]> {
  return db
    .select({ bikeId: bikeAssignment.bikeId, memberId: bikeAssignment.memberId, name: member.name })
    .from(bikeAssignment)
    .innerJoin(member, eq(member.id, bikeAssignment.memberId))
    .where(eq(bikeAssignment.day, day))
}

type Assignment = Readonly<{ id: string; bikeId: string; memberId: string | null; day: string; at: Date; by: string }>

/**
 * Says who sits on a bike, or with null that it is free, within the caller's transaction; someone who sat elsewhere has
 * moved. The same id with the same content again changes nothing, whatever was said since.
 */
export async function assignBike(tx: DbExecutor, said: Assignment): Promise<Written> {
  const { id, bikeId, memberId, day, at, by } = said
  // The bike's and the member's rows are the locks, always in this order.
  await tx.select({ id: bike.id }).from(bike).where(eq(bike.id, bikeId)).for('update')
  if (memberId) await tx.select({ id: member.id }).from(member).where(eq(member.id, memberId)).for('update')
  const [before] = await tx
    .select({ bikeId: seating.bikeId, memberId: seating.memberId })
    .from(seating)
    .where(eq(seating.id, id))
  if (before) return { outcome: sameContent(before, { bikeId, memberId }) ? 'kept' : 'idTaken' }
  await tx.insert(seating).values({ id, bikeId, memberId, day, at, by })
  const elsewhere = memberId ? eq(bikeAssignment.memberId, memberId) : undefined
  await tx
    .delete(bikeAssignment)
    .where(and(eq(bikeAssignment.day, day), or(eq(bikeAssignment.bikeId, bikeId), elsewhere)))
  if (memberId) await tx.insert(bikeAssignment).values({ bikeId, memberId, day, assignedAt: at, assignedBy: by })
  return { outcome: 'kept' }
}

const columns = {
  id: classNote.id,
  memberId: classNote.memberId,
  bikeNumber: bike.number,
  region: classNote.region,
  sign: classNote.sign,
  side: classNote.side,
  madeAt: classNote.madeAt,
  by: user.name,
}

/** Notes made since a moment, the latest first. */
export async function notesSince(db: DbExecutor, since: Date): Promise<Note[]> {
  return notesWhere(db, gte(classNote.madeAt, since))
}

/** All notes on a member, the latest first. */
export async function notesOn(db: DbExecutor, memberId: string): Promise<Note[]> {
  return notesWhere(db, eq(classNote.memberId, memberId))
}

async function notesWhere(db: DbExecutor, condition: ReturnType<typeof eq>): Promise<Note[]> {
  return db
    .select(columns)
    .from(classNote)
    .innerJoin(bike, eq(bike.id, classNote.bikeId))
    .innerJoin(user, eq(user.id, classNote.madeBy))
    .where(and(condition, isNull(classNote.withdrawnAt)))
    .orderBy(desc(classNote.madeAt))
    .limit(200)
}

/** Keeps a note; the same id with the same content again changes nothing, also after it was withdrawn. */
export async function addNote(
  db: DbExecutor,
  note: Readonly<{
    id: string
    memberId: string
    bikeId: string
    region: string
    sign: string
    side: Side
    at: Date
    by: string
  }>,
): Promise<Written> {
  const { at, by, ...said } = note
  const { id, memberId, bikeId, region, sign, side } = classNote
  const stored = async () =>
    (await db.select({ id, memberId, bikeId, region, sign, side }).from(classNote).where(eq(id, note.id)))[0]
  return insertOnce(() => db.insert(classNote).values({ ...said, madeAt: at, madeBy: by }), stored, said)
}

/** Takes a note back; unknown or already withdrawn ones change nothing. */
export async function withdrawNote(db: DbExecutor, id: string, at: Date): Promise<void> {
  await db
    .update(classNote)
    .set({ withdrawnAt: at })
    .where(and(eq(classNote.id, id), isNull(classNote.withdrawnAt)))
}
