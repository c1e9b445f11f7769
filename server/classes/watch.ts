import { and, asc, eq, inArray } from 'drizzle-orm'
import type { ClassState, NoteState } from '../../core/classes/watch/classState'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { insertOnce, type WriteResult } from '../platform/db/insertOnce'
import { classCue, classLook, studioCue } from './tables'
import { listMovesOfClass } from './moves'
import { listNotesOfClass, type Note } from './notes'

/** Somebody was looked at; with `numbers` their numbers were. */
export type Look = Readonly<{
  id: string
  classId: string
  memberId: string
  bikeId: string
  numbers: boolean
  createdAt: Date
}>

const lookColumns = {
  id: classLook.id,
  classId: classLook.classId,
  memberId: classLook.memberId,
  bikeId: classLook.bikeId,
  numbers: classLook.numbers,
}

/** The looks of a class without a note, the oldest first. */
export async function listLooks(db: DbExecutor, scope: Scope, classId: string): Promise<Look[]> {
  return db
    .select({ ...lookColumns, createdAt: classLook.createdAt })
    .from(classLook)
    .where(and(eq(classLook.classId, classId), eq(classLook.studioId, scope.studioId)))
    .orderBy(asc(classLook.createdAt))
}

/** Stores a look; the same id with the same content again changes nothing. */
export async function addLook(db: DbExecutor, scope: Scope, { createdAt, ...look }: Look): Promise<WriteResult> {
  const { studioId, userId } = scope
  const stored = { ...lookColumns, studioId: classLook.studioId }
  return insertOnce(
    () => db.insert(classLook).values({ ...look, studioId, createdAt, createdBy: userId }),
    async () => (await db.select(stored).from(classLook).where(eq(classLook.id, look.id)))[0],
    { ...look, studioId },
  )
}

/** A cue to the room. */
export type RoomCue = Readonly<{
  id: string
  classId: string
  sign: string
  cue: string
  concerned: readonly string[]
  createdAt: Date
}>

/** The cues to the room in a class, the oldest first. */
export async function listRoomCues(db: DbExecutor, scope: Scope, classId: string): Promise<RoomCue[]> {
  const { id, sign, cue, concerned, createdAt } = classCue
  return db
    .select({ id, classId: classCue.classId, sign, cue, concerned, createdAt })
    .from(classCue)
    .where(and(eq(classCue.classId, classId), eq(classCue.studioId, scope.studioId)))
    .orderBy(asc(createdAt))
}

export async function addRoomCue(db: DbExecutor, scope: Scope, cue: RoomCue): Promise<WriteResult> {
  const { studioId, userId } = scope
  const { createdAt, ...fields } = cue
  return insertOnce(
    () => db.insert(classCue).values({ ...fields, studioId, createdAt, createdBy: userId }),
    async () =>
      (
        await db
          .select({
            id: classCue.id,
            classId: classCue.classId,
            sign: classCue.sign,
            cue: classCue.cue,
            concerned: classCue.concerned,
            studioId: classCue.studioId,
          })
          .from(classCue)
          .where(eq(classCue.id, cue.id))
      )[0],
    { ...fields, studioId },
  )
}

/** The studio's own words for cues, by sign. */
export async function listOwnCues(db: DbExecutor, scope: Scope): Promise<Readonly<Record<string, string>>> {
  const found = await db
    .select({ sign: studioCue.sign, cue: studioCue.cue })
    .from(studioCue)
    .where(eq(studioCue.studioId, scope.studioId))
  return Object.fromEntries(found.map(({ sign, cue }) => [sign, cue]))
}

/** Sets the studio's words of a cue; null goes back to the product's own words. */
export async function setCueText(
  db: DbExecutor,
  scope: Scope,
  sign: string,
  cue: string | null,
  now: Date,
): Promise<void> {
  const { studioId, userId } = scope
  if (cue === null)
    await db.delete(studioCue).where(and(eq(studioCue.studioId, studioId), inArray(studioCue.sign, [sign])))
  else
    await db
      .insert(studioCue)
      .values({ studioId, sign, cue, createdAt: now, createdBy: userId })
      .onDuplicateKeyUpdate({ set: { cue, createdAt: now, createdBy: userId } })
}

/** A class as noted so far, for its subscribers. */
export async function classState(db: DbExecutor, scope: Scope, classId: string): Promise<ClassState> {
  const [notes, looks, cues, moves] = [
    await listNotesOfClass(db, scope, classId),
    await listLooks(db, scope, classId),
    await listRoomCues(db, scope, classId),
    await listMovesOfClass(db, scope, classId),
  ]
  return {
    notes: notes.reverse().map(asNoteState),
    looks: looks.map(({ createdAt, classId: _, ...look }) => ({ ...look, atMs: createdAt.getTime() })),
    cues: cues.map(({ createdAt, classId: _, ...cue }) => ({ ...cue, atMs: createdAt.getTime() })),
    moves,
  }
}

const asNoteState = ({ createdAt, heldAt, classId: _c, bikeNumber: _n, createdBy: _b, ...note }: Note): NoteState => ({
  ...note,
  heldAtMs: heldAt?.getTime() ?? null,
  atMs: createdAt.getTime(),
})
