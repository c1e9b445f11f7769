import { and, desc, eq, gte, isNull, type SQL } from 'drizzle-orm'
import type { Scope } from '../accounts/scope'
import type { DbExecutor } from '../db/connection'
import { insertOnce, type WriteResult } from '../db/insertOnce'
import { user } from '../db/tables/accounts'
import { bike } from '../db/tables/bikes'
import { classNote } from '../db/tables/riders'

export type Side = 'left' | 'right' | 'both'

export type Note = Readonly<{
  id: string
  memberId: string
  bikeNumber: number
  region: string
  sign: string
  side: Side
  createdAt: Date
  createdBy: string
}>

const columns = {
  id: classNote.id,
  memberId: classNote.memberId,
  bikeNumber: bike.number,
  region: classNote.region,
  sign: classNote.sign,
  side: classNote.side,
  createdAt: classNote.createdAt,
  createdBy: user.name,
}
/** More notes at once than this nobody reads. */
const MAX_NOTES = 200

/** Notes of the studio made since a moment, the latest first. */
export const listNotesSince = (db: DbExecutor, scope: Scope, since: Date): Promise<Note[]> =>
  listNotes(db, scope, gte(classNote.createdAt, since))

/** All notes on a member, the latest first. */
export const listNotesOfMember = (db: DbExecutor, scope: Scope, memberId: string): Promise<Note[]> =>
  listNotes(db, scope, eq(classNote.memberId, memberId))

async function listNotes(db: DbExecutor, scope: Scope, condition: SQL): Promise<Note[]> {
  return db
    .select(columns)
    .from(classNote)
    .innerJoin(bike, eq(bike.id, classNote.bikeId))
    .innerJoin(user, eq(user.id, classNote.createdBy))
    .where(and(eq(classNote.studioId, scope.studioId), condition, isNull(classNote.withdrawnAt)))
    .orderBy(desc(classNote.createdAt))
    .limit(MAX_NOTES)
}

/** What is noted of a rider on a bike; `createdAt` is when it was seen, by the device. Both must be the studio's. */
export type NewNote = Readonly<{
  id: string
  memberId: string
  bikeId: string
  region: string
  sign: string
  side: Side
  createdAt: Date
}>

/** Keeps a note; the same id with the same content again changes nothing, also after it was withdrawn. */
export async function addNote(db: DbExecutor, scope: Scope, note: NewNote): Promise<WriteResult> {
  const { createdAt, ...noted } = note
  const content = { ...noted, studioId: scope.studioId }
  const { id, studioId, memberId, bikeId, region, sign, side } = classNote
  const stored = async () =>
    (await db.select({ id, studioId, memberId, bikeId, region, sign, side }).from(classNote).where(eq(id, note.id)))[0]
  return insertOnce(
    () => db.insert(classNote).values({ ...content, createdAt, createdBy: scope.userId }),
    stored,
    content,
  )
}

/** Takes a note back; unknown or already withdrawn ones change nothing. */
export async function withdrawNote(db: DbExecutor, scope: Scope, id: string, now: Date): Promise<void> {
  await db
    .update(classNote)
    .set({ withdrawnAt: now })
    .where(and(eq(classNote.id, id), eq(classNote.studioId, scope.studioId), isNull(classNote.withdrawnAt)))
}
