import { and, desc, eq, gte, inArray, isNull, sql, type SQL } from 'drizzle-orm'
import type { HandPosition, Posture } from '../../core/classes/plan/blocks'
import {
  changeOf,
  type NoteChange,
  type NoteState,
  type Side,
  type Strength,
} from '../../core/classes/watch/classState'
import { RED_FLAG } from '../../core/classes/watch/comfort'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { insertOnce, type WriteResult } from '../platform/db/insertOnce'
import { user, studio } from '../platform/accounts/tables'
import { bike } from '../bikes/tables'
import { studioClass } from './rooms/tables'
import { consent, member } from '../riders/tables'
import { classNote } from './tables'

/** A note as stored. */
export type Note = Omit<NoteState, 'atMs' | 'heldAtMs'> &
  Readonly<{
    /** Null for notes from before there were classes. */
    classId: string | null
    bikeNumber: number
    heldAt: Date | null
    createdAt: Date
    createdBy: string
  }>

const columns = {
  id: classNote.id,
  memberId: classNote.memberId,
  bikeId: classNote.bikeId,
  bikeNumber: bike.number,
  classId: classNote.classId,
  region: classNote.region,
  sign: classNote.sign,
  side: classNote.side,
  strength: classNote.strength,
  score: classNote.score,
  minute: classNote.minute,
  posture: classNote.posture,
  hands: classNote.hands,
  cued: classNote.cued,
  held: classNote.held,
  heldAt: classNote.heldAt,
  createdAt: classNote.createdAt,
  createdBy: user.name,
}
/** More notes at once than this nobody reads. */
const MAX_NOTES = 500
/** A class of forty with a note a minute on each for an hour has 2,400. */
const MAX_OF_CLASS = 5000

/** All notes of a class, the latest first. */
export const listNotesOfClass = (db: DbExecutor, scope: Scope, classId: string): Promise<Note[]> =>
  listNotes(db, scope, eq(classNote.classId, classId), MAX_OF_CLASS)

/** Notes on these members made since a moment, the latest first. */
export const listNotesOfMembers = async (
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  since: Date,
): Promise<Note[]> =>
  memberIds.length === 0
    ? []
    : listNotes(
        db,
        scope,
        and(inArray(classNote.memberId, [...memberIds]), gte(classNote.createdAt, since))!,
        MAX_OF_CLASS,
      )

/** Red flags tapped on the floor for a member since a moment, the latest first: by themselves, however many notes. */
export const listFlagsOfMember = (db: DbExecutor, scope: Scope, memberId: string, since: Date): Promise<Note[]> =>
  listNotes(
    db,
    scope,
    and(eq(classNote.memberId, memberId), eq(classNote.sign, RED_FLAG), gte(classNote.createdAt, since))!,
  )

/** All notes on a member, the latest first. */
export const listNotesOfMember = (db: DbExecutor, scope: Scope, memberId: string): Promise<Note[]> =>
  listNotes(db, scope, eq(classNote.memberId, memberId))

async function listNotes(db: DbExecutor, scope: Scope, condition: SQL, most = MAX_NOTES): Promise<Note[]> {
  return db
    .select(columns)
    .from(classNote)
    .innerJoin(bike, eq(bike.id, classNote.bikeId))
    .innerJoin(user, eq(user.id, classNote.createdBy))
    .where(and(eq(classNote.studioId, scope.studioId), condition, isNull(classNote.withdrawnAt)))
    .orderBy(desc(classNote.createdAt))
    .limit(most)
}

/** Used for every note: the text of the query is built once. */
const prepareOnFloor = (db: DbExecutor) =>
  db
    .select({ classId: studioClass.id, memberId: member.id, bikeId: bike.id, consentId: consent.id })
    .from(studio)
    .leftJoin(studioClass, and(eq(studioClass.studioId, studio.id), eq(studioClass.id, sql.placeholder('classId'))))
    .leftJoin(member, and(eq(member.studioId, studio.id), eq(member.id, sql.placeholder('memberId'))))
    .leftJoin(bike, and(eq(bike.studioId, studio.id), eq(bike.id, sql.placeholder('bikeId'))))
    .leftJoin(consent, and(eq(consent.memberId, member.id), isNull(consent.endedAt)))
    .where(eq(studio.id, sql.placeholder('studioId')))
    .prepare()
const preparedOnFloor = new WeakMap<DbExecutor, ReturnType<typeof prepareOnFloor>>()

/**
 * Whether the studio has this class, and this rider and bike, and whether the rider agreed to notes; parts that are not
 * requested are missing.
 */
export async function findOnFloor(
  db: DbExecutor,
  { studioId }: Pick<Scope, 'studioId'>,
  { classId = '', memberId = '', bikeId = '' }: Readonly<{ classId?: string; memberId?: string; bikeId?: string }>,
): Promise<Readonly<{ ofClass: boolean; rider: boolean; agrees: boolean }>> {
  const prepared = preparedOnFloor.get(db) ?? prepareOnFloor(db)
  preparedOnFloor.set(db, prepared)
  const [found] = await prepared.execute({ studioId, classId, memberId, bikeId })
  return {
    ofClass: (found?.classId ?? null) !== null,
    rider: (found?.memberId ?? null) !== null && (found?.bikeId ?? null) !== null,
    agrees: (found?.consentId ?? null) !== null,
  }
}

/** What is noted of a rider on a bike; `createdAt` is when it was seen. All named must be the studio's. */
export type NewNote = Readonly<{
  id: string
  memberId: string
  bikeId: string
  region: string
  sign: string
  side: Side
  createdAt: Date
}> &
  Readonly<
    Partial<{
      classId: string | null
      strength: Strength | null
      score: number | null
      minute: number | null
      posture: Posture | null
      hands: HandPosition | null
      cued: boolean
    }>
  >

/** Stores a note; the same id with the same content again changes nothing, also after it was changed or withdrawn. */
export async function addNote(db: DbExecutor, scope: Scope, note: NewNote): Promise<WriteResult> {
  const { createdAt, strength, cued, ...noted } = note
  const content = { classId: null, score: null, ...withoutMoment(noted), studioId: scope.studioId }
  const { id, studioId, classId, memberId, bikeId, region, sign, side, score } = classNote
  const stored = async () =>
    (
      await db
        .select({ id, studioId, classId, memberId, bikeId, region, sign, side, score })
        .from(classNote)
        .where(eq(id, note.id))
    )[0]
  return insertOnce(
    () =>
      db
        .insert(classNote)
        .values({ ...noted, studioId: scope.studioId, strength, cued, createdAt, createdBy: scope.userId }),
    stored,
    content,
  )
}

const withoutMoment = ({
  minute: _minute,
  posture: _posture,
  hands: _hands,
  ...rest
}: Omit<NewNote, 'createdAt' | 'strength' | 'cued'>) => rest

/**
 * Changes a note as seen at `at`: a second look older than the stored one does not change `held`, by the rule
 * of `changeOf`. Unknown or withdrawn notes change nothing.
 */
export async function changeNote(db: Database, scope: Scope, id: string, change: NoteChange, at: Date): Promise<void> {
  const own = and(eq(classNote.id, id), eq(classNote.studioId, scope.studioId), isNull(classNote.withdrawnAt))
  await withTransaction(db, async (tx) => {
    const [current] = await tx.select({ heldAt: classNote.heldAt }).from(classNote).where(own).for('update')
    if (!current) return
    const { heldAtMs, ...rest } = changeOf({ heldAtMs: current.heldAt?.getTime() ?? null }, change, at.getTime())
    const written = { ...rest, ...(heldAtMs !== undefined && { heldAt: new Date(heldAtMs) }) }
    if (Object.keys(written).length > 0) await tx.update(classNote).set(written).where(own)
  })
}

/** Takes a note back; unknown or already withdrawn ones change nothing. */
export async function withdrawNote(db: DbExecutor, scope: Scope, id: string, now: Date): Promise<void> {
  await db
    .update(classNote)
    .set({ withdrawnAt: now })
    .where(and(eq(classNote.id, id), eq(classNote.studioId, scope.studioId), isNull(classNote.withdrawnAt)))
}
