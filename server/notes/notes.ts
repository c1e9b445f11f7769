import { and, asc, desc, eq, gte, isNull } from 'drizzle-orm'
import type { Access } from '../db/connection'
import { bike, classNote, member, seating, user } from '../db/schema'

export type Side = 'left' | 'right' | 'both'

/** Who sits on a bike today; null when it is free. */
export type Seated = Readonly<{ bikeId: string; memberId: string; name: string }>

export type Note = Readonly<{ id: string; memberId: string; bikeNumber: number; region: string; sign: string; side: Side; madeAt: Date; by: string }>

/** Who sits where on a studio's day: per bike the latest word. */
export async function seatedOn(db: Access, day: string): Promise<Seated[]> {
  const rows = await db
    .select({ bikeId: seating.bikeId, memberId: seating.memberId, name: member.name })
    .from(seating)
    .leftJoin(member, eq(member.id, seating.memberId))
    .where(eq(seating.day, day))
    .orderBy(asc(seating.position))
  const latest = new Map(rows.map((row) => [row.bikeId, row]))
  return [...latest.values()].flatMap(({ bikeId, memberId, name }) => (memberId && name ? [{ bikeId, memberId, name }] : []))
}

/** Says who sits on a bike, or with null that it is free; someone who sat elsewhere has moved. The same id again changes nothing. */
export async function seat(db: Access, word: Readonly<{ id: string; bikeId: string; memberId: string | null; day: string; at: Date; by: string }>): Promise<void> {
  if (word.memberId) {
    const elsewhere = (await seatedOn(db, word.day)).filter((s) => s.memberId === word.memberId && s.bikeId !== word.bikeId)
    for (const { bikeId } of elsewhere) {
      await db.insert(seating).values({ id: crypto.randomUUID(), bikeId, memberId: null, day: word.day, at: word.at, by: word.by })
    }
  }
  await db.insert(seating).values({ ...word }).onDuplicateKeyUpdate({ set: { id: word.id } })
}

const columns = {
  id: classNote.id, memberId: classNote.memberId, bikeNumber: bike.number, region: classNote.region, sign: classNote.sign,
  side: classNote.side, madeAt: classNote.madeAt, by: user.name,
}

/** Notes made since a moment, the latest first. */
export async function notesSince(db: Access, since: Date): Promise<Note[]> {
  return notesWhere(db, gte(classNote.madeAt, since))
}

/** All notes on a member, the latest first. */
export async function notesOn(db: Access, memberId: string): Promise<Note[]> {
  return notesWhere(db, eq(classNote.memberId, memberId))
}

async function notesWhere(db: Access, condition: ReturnType<typeof eq>): Promise<Note[]> {
  return db
    .select(columns)
    .from(classNote)
    .innerJoin(bike, eq(bike.id, classNote.bikeId))
    .innerJoin(user, eq(user.id, classNote.madeBy))
    .where(and(condition, isNull(classNote.withdrawnAt)))
    .orderBy(desc(classNote.madeAt))
    .limit(200)
}

/** Keeps a note; the same id again changes nothing. */
export async function makeNote(
  db: Access,
  note: Readonly<{ id: string; memberId: string; bikeId: string; region: string; sign: string; side: Side; at: Date; by: string }>,
): Promise<void> {
  const { at, by, ...said } = note
  await db.insert(classNote).values({ ...said, madeAt: at, madeBy: by }).onDuplicateKeyUpdate({ set: { id: note.id } })
}

export async function withdrawNote(db: Access, id: string, at: Date): Promise<void> {
  await db.update(classNote).set({ withdrawnAt: at }).where(eq(classNote.id, id))
}
