import { and, asc, count, eq, gte, inArray, isNull, lt, ne } from 'drizzle-orm'
import type { Block } from '../../core/classes/plan/blocks'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { insertOnce, type WriteResult } from '../platform/db/insertOnce'
import { user } from '../platform/accounts/tables'
import { classRider } from './tables'
import { room, studioClass, type CLASS_SOURCES } from './rooms/tables'
import { sameContent } from '../platform/db/sameContent'

/** A class, or the open floor of a day (`openDay`). */
export type StudioClass = Readonly<{
  id: string
  title: string
  startsAt: Date
  endsAt: Date
  roomId: string | null
  roomName: string | null
  source: (typeof CLASS_SOURCES)[number]
  openDay: string | null
  hands: number
  doorsMin: number
  blocks: readonly Block[] | null
  /** Who teaches it; null if unknown. */
  teacherId: string | null
  teacher: string | null
  cancelledAt: Date | null
}>

const columns = {
  id: studioClass.id,
  title: studioClass.title,
  startsAt: studioClass.startsAt,
  endsAt: studioClass.endsAt,
  roomId: studioClass.roomId,
  roomName: room.name,
  source: studioClass.source,
  openDay: studioClass.openDay,
  hands: studioClass.hands,
  doorsMin: studioClass.doorsMin,
  blocks: studioClass.blocks,
  teacherId: studioClass.teacherId,
  teacher: user.name,
  cancelledAt: studioClass.cancelledAt,
}
const classesWithNames = (db: DbExecutor) =>
  db
    .select(columns)
    .from(studioClass)
    .leftJoin(room, eq(room.id, studioClass.roomId))
    .leftJoin(user, eq(user.id, studioClass.teacherId))
/** More classes than this no span of the timetable shows. */
const MAX_CLASSES = 400

/** Plans within so many ms before or after a class are offered to it. */
const PLANS_AROUND_MS = 45 * 86_400_000
const MAX_PLANS = 12

/** Other classes with a plan within 45 days of one; the latest 12, by their start. */
export async function listPlansAround(
  db: DbExecutor,
  scope: Scope,
  { id, startsAt }: StudioClass,
): Promise<StudioClass[]> {
  const [from, to] = [-PLANS_AROUND_MS, PLANS_AROUND_MS].map((ms) => new Date(startsAt.getTime() + ms))
  const classes = await listClasses(db, scope, from, to)
  return classes.filter((one) => one.id !== id && one.blocks !== null).slice(-MAX_PLANS)
}

/** Classes that begin within a span, by their start, with how many come; open floors are not among them. */
export async function listClasses(
  db: DbExecutor,
  scope: Scope,
  from: Date,
  to: Date,
): Promise<(StudioClass & Readonly<{ riders: number }>)[]> {
  const { studioId } = scope
  const found = await classesWithNames(db)
    .where(
      and(
        eq(studioClass.studioId, studioId),
        gte(studioClass.startsAt, from),
        lt(studioClass.startsAt, to),
        isNull(studioClass.openDay),
      ),
    )
    .orderBy(asc(studioClass.startsAt))
    .limit(MAX_CLASSES)
  if (found.length === 0) return []
  const counts = await db
    .select({ classId: classRider.classId, riders: count() })
    .from(classRider)
    .where(
      and(
        inArray(
          classRider.classId,
          found.map(({ id }) => id),
        ),
        ne(classRider.state, 'cancelled'),
      ),
    )
    .groupBy(classRider.classId)
  const ridersOf = new Map(counts.map(({ classId, riders }) => [classId, riders]))
  return found.map((one) => ({ ...one, riders: ridersOf.get(one.id) ?? 0 }))
}

/** Minutes before its start from which a class counts as the one in its room. */
const EARLY_MS = 30 * 60_000

/** The id of the class that runs in a room, or is about to; null for none. */
export async function classInRoom(db: DbExecutor, scope: Scope, roomId: string, now: Date): Promise<string | null> {
  const [found] = await db
    .select({ id: studioClass.id })
    .from(studioClass)
    .where(
      and(
        eq(studioClass.studioId, scope.studioId),
        eq(studioClass.roomId, roomId),
        lt(studioClass.startsAt, new Date(now.getTime() + EARLY_MS)),
        gte(studioClass.endsAt, now),
        isNull(studioClass.cancelledAt),
        isNull(studioClass.openDay),
      ),
    )
    .orderBy(asc(studioClass.startsAt))
    .limit(1)
  return found?.id ?? null
}

/** One class, or null when the studio has none of this id. */
export async function findClass(db: DbExecutor, scope: Scope, id: string): Promise<StudioClass | null> {
  const [found] = await classesWithNames(db).where(
    and(eq(studioClass.id, id), eq(studioClass.studioId, scope.studioId)),
  )
  return found ?? null
}

/** Facts of a class that people edit. */
export type NewClass = Readonly<{
  id: string
  title: string
  startsAt: Date
  endsAt: Date
  roomId: string | null
  teacherId?: string | null
}>

/** Adds a class; the same id with the same content again changes nothing. */
export async function addClass(db: DbExecutor, scope: Scope, input: NewClass, now: Date): Promise<WriteResult> {
  const content = { ...input, teacherId: input.teacherId ?? null, studioId: scope.studioId }
  const { id, title, startsAt, endsAt, roomId, teacherId, studioId } = studioClass
  return insertOnce(
    () => db.insert(studioClass).values({ ...content, source: 'hand', createdAt: now, createdBy: scope.userId }),
    async () =>
      (
        await db
          .select({ id, title, startsAt, endsAt, roomId, teacherId, studioId })
          .from(studioClass)
          .where(eq(id, input.id))
      )[0],
    content,
  )
}

/** Adds several, all or none; the same again changes nothing. */
export async function addClasses(
  db: Database,
  scope: Scope,
  inputs: readonly NewClass[],
  now: Date,
): Promise<WriteResult> {
  try {
    await withTransaction(db, async (tx) => {
      for (const one of inputs)
        if ((await addClass(tx, scope, one, now)).outcome !== 'kept') throw new IdTaken('a class of another content')
    })
    return { outcome: 'kept' }
  } catch (error) {
    if (error instanceof IdTaken) return { outcome: 'idTaken' }
    throw error
  }
}
class IdTaken extends Error {}

/** What may be changed of a class; what is left out stays. */
export type ClassChange = Readonly<
  Partial<{
    title: string
    startsAt: Date
    endsAt: Date
    roomId: string | null
    hands: number
    doorsMin: number
    blocks: readonly Block[] | null
    teacherId: string | null
    cancelledAt: Date | null
  }>
>

/** False where the studio has no such class. */
export async function changeClass(db: DbExecutor, scope: Scope, id: string, change: ClassChange): Promise<boolean> {
  if (Object.keys(change).length === 0) return (await findClass(db, scope, id)) !== null
  const own = and(eq(studioClass.id, id), eq(studioClass.studioId, scope.studioId))
  await db.update(studioClass).set(change).where(own)
  return (await db.select({ id: studioClass.id }).from(studioClass).where(own)).length > 0
}

/** What a class is called, when, where and with whom: what is changed of it together. */
export type ClassFacts = Readonly<{
  title: string
  startsAt: Date
  endsAt: Date
  roomId: string | null
  teacherId: string | null
}>

/** `changed`: somebody changed it since it was looked at; `gone`: the studio has no such class, room or teacher. */
export type ClassFactsResult = Readonly<{ outcome: 'kept' | 'changed' | 'gone' }>

/**
 * Renames or moves a class, or sets its teacher, given the facts as they were shown. Sent again it changes nothing;
 * where somebody else was faster, nothing is written.
 */
export async function changeClassFacts(
  db: Database,
  scope: Scope,
  id: string,
  { from, to }: Readonly<{ from: ClassFacts; to: ClassFacts }>,
): Promise<ClassFactsResult> {
  return withTransaction(db, async (tx): Promise<ClassFactsResult> => {
    const own = and(eq(studioClass.id, id), eq(studioClass.studioId, scope.studioId))
    const { title, startsAt, endsAt, roomId, teacherId } = studioClass
    const [before] = await tx
      .select({ title, startsAt, endsAt, roomId, teacherId })
      .from(studioClass)
      .where(own)
      .for('update')
    const [there] = to.roomId
      ? await tx
          .select({ id: room.id })
          .from(room)
          .where(and(eq(room.id, to.roomId), eq(room.studioId, scope.studioId)))
      : [true]
    const [teaches] = to.teacherId
      ? await tx
          .select({ id: user.id })
          .from(user)
          .where(and(eq(user.id, to.teacherId), eq(user.studioId, scope.studioId)))
      : [true]
    if (!before || !there || !teaches) return { outcome: 'gone' }
    if (sameContent(before, to)) return { outcome: 'kept' }
    if (!isAsSeen(before, from)) return { outcome: 'changed' }
    await tx.update(studioClass).set(to).where(own)
    return { outcome: 'kept' }
  })
}

/** Forms show whole minutes: times that differ by less are the same. */
const isAsSeen = (now: ClassFacts, seen: ClassFacts): boolean =>
  sameContent({ ...now, startsAt: 0, endsAt: 0 }, { ...seen, startsAt: 0, endsAt: 0 }) &&
  Math.abs(now.startsAt.getTime() - seen.startsAt.getTime()) < MINUTE_MS &&
  Math.abs(now.endsAt.getTime() - seen.endsAt.getTime()) < MINUTE_MS
const MINUTE_MS = 60_000

/**
 * Adds the same class again in each of the following weeks, with its plan and the people setting up; `startOf` and the
 * ids are the caller's, by week from 1. Riders are not copied. The same again changes nothing.
 */
export async function repeatClass(
  db: Database,
  scope: Scope,
  of: StudioClass,
  weeks: readonly Readonly<{ id: string; startsAt: Date }>[],
  now: Date,
): Promise<WriteResult> {
  const length = of.endsAt.getTime() - of.startsAt.getTime()
  const { title, roomId, hands, doorsMin, blocks, teacherId } = of
  return withTransaction(db, async (tx): Promise<WriteResult> => {
    for (const { id, startsAt } of weeks) {
      const input = { id, title, startsAt, endsAt: new Date(startsAt.getTime() + length), roomId, teacherId }
      const added = await addClass(tx, scope, input, now)
      if (added.outcome !== 'kept') throw new IdTaken('a class of another content')
      await changeClass(tx, scope, id, { hands, doorsMin, blocks })
    }
    return { outcome: 'kept' }
  }).catch((error: unknown) => {
    if (error instanceof IdTaken) return { outcome: 'idTaken' }
    throw error
  })
}

/** The open floor of a studio's day, created on first use; `day` is YYYY-MM-DD, with its time span. */
export async function openFloor(
  db: Database,
  scope: Scope,
  { day, from, to }: Readonly<{ day: string; from: Date; to: Date }>,
  now: Date,
): Promise<string> {
  const { studioId } = scope
  const ofDay = and(eq(studioClass.studioId, studioId), eq(studioClass.openDay, day))
  const [there] = await db.select({ id: studioClass.id }).from(studioClass).where(ofDay)
  if (there) return there.id
  const [{ id: roomId } = { id: null }] = await db
    .select({ id: room.id })
    .from(room)
    .where(eq(room.studioId, studioId))
    .orderBy(asc(room.createdAt))
    .limit(1)
  await db
    .insert(studioClass)
    .values({
      id: crypto.randomUUID(),
      studioId,
      roomId,
      title: 'Open floor',
      startsAt: from,
      endsAt: to,
      source: 'open',
      openDay: day,
      createdAt: now,
      createdBy: scope.userId,
    })
    // Two concurrent requests get the same one.
    .onDuplicateKeyUpdate({ set: { openDay: day } })
  const [made] = await db.select({ id: studioClass.id }).from(studioClass).where(ofDay)
  return made.id
}

/** A class from a calendar, a list or a booking service; `uid` and `occurrence` identify it at its source. */
export type TimetableEntry = Readonly<{
  uid: string
  occurrence: string
  title: string
  place: string
  startsAt: Date
  endsAt: Date
  cancelled: boolean
}>
export type TimetableTally = Readonly<{ added: number; changed: number; unchanged: number; cancelled: number }>

/** Key of a class among those of its source. */
export const sourceKey = ({ uid, occurrence }: Pick<TimetableEntry, 'uid' | 'occurrence'>): string =>
  JSON.stringify([uid, occurrence])

/**
 * Upserts the classes of a source within the caller's transaction: adds new ones, updates existing ones, marks
 * cancelled ones. The room is the one with that name, else the studio's only one. Idempotent. Skips a class that was
 * cancelled at its source before the first import.
 */
export async function upsertTimetable(
  tx: DbExecutor,
  scope: Scope,
  source: 'calendar' | 'list' | 'booking',
  entries: readonly TimetableEntry[],
  now: Date,
): Promise<Readonly<{ tally: TimetableTally; classIds: ReadonlyMap<string, string> }>> {
  const { studioId } = scope
  const rooms = await tx.select({ id: room.id, name: room.name }).from(room).where(eq(room.studioId, studioId))
  const tally = { added: 0, changed: 0, unchanged: 0, cancelled: 0 }
  const classIds = new Map<string, string>()
  for (const { uid, occurrence, title, place, startsAt, endsAt, cancelled } of entries) {
    const named = rooms.find(({ name }) => name.toLowerCase() === place.trim().toLowerCase())
    const roomId = named?.id ?? (rooms.length === 1 ? rooms[0].id : null)
    const [there] = await tx
      .select({ ...columnsOfSource, id: studioClass.id })
      .from(studioClass)
      .where(and(eq(studioClass.studioId, studioId), eq(studioClass.uid, uid), eq(studioClass.occurrence, occurrence)))
      .for('update')
    if (!there) {
      if (cancelled) continue
      const id = crypto.randomUUID()
      classIds.set(sourceKey({ uid, occurrence }), id)
      await tx.insert(studioClass).values({
        id,
        studioId,
        roomId,
        title,
        startsAt,
        endsAt,
        source,
        uid,
        occurrence,
        createdAt: now,
        createdBy: source === 'booking' ? null : scope.userId,
      })
      tally.added += 1
      continue
    }
    const { id, cancelledAt, ...before } = there
    classIds.set(sourceKey({ uid, occurrence }), id)
    if (cancelled) {
      if (cancelledAt) tally.unchanged += 1
      else {
        await tx.update(studioClass).set({ cancelledAt: now }).where(eq(studioClass.id, id))
        tally.cancelled += 1
      }
      continue
    }
    const update = { title, startsAt, endsAt, roomId: named ? roomId : before.roomId }
    if (!cancelledAt && sameContent(before, update)) tally.unchanged += 1
    else {
      await tx
        .update(studioClass)
        .set({ ...update, cancelledAt: null })
        .where(eq(studioClass.id, id))
      tally.changed += 1
    }
  }
  return { tally, classIds }
}
const columnsOfSource = {
  title: studioClass.title,
  startsAt: studioClass.startsAt,
  endsAt: studioClass.endsAt,
  roomId: studioClass.roomId,
  cancelledAt: studioClass.cancelledAt,
}
