import { and, asc, eq, gte, inArray, isNull } from 'drizzle-orm'
import type { Marks } from '../../core/base/conventions'
import { findPosition } from '../../core/bikes/scale/scale'
import { axisOf } from '../../core/bikes/bike/bike'
import type { MoveState } from '../../core/classes/watch/classState'
import { studioDay } from '../../core/messages/words/dates'
import type { MarkMove } from '../../core/setups/moves/move'
import { marksOnMachine } from '../../core/setups/translate/onMachine'
import { studio } from '../platform/accounts/tables'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { sameContent } from '../platform/db/sameContent'
import type { StudioBike } from '../bikes/bikes'
import {
  byDisplayPriority,
  currentEntries,
  findEntry,
  newEntryOf,
  recordEntry,
  type RegisterEntry,
} from '../setups/register'
import { markMove } from './tables'

/** A mark moved on a machine, by its client-made id; the register's entry has the same id. */
export type NewMove = MarkMove & Readonly<{ id: string; memberId: string; classId: string | null }>

/** A move as stored. */
export type StoredMove = typeof markMove.$inferSelect

/**
 * `elsewhere`: the axis is at another mark, with the entry that set it; `needsReason`: an earlier move on the same day;
 * `noNumbers`: no numbers for this type; `noMark`: no such mark on the scale. Only `kept` has written anything.
 */
export type MoveResult =
  | Readonly<{ outcome: 'kept' | 'idTaken' | 'needsReason' | 'noNumbers' | 'noMark' | 'gone' }>
  | Readonly<{ outcome: 'elsewhere'; label: string | null; entry: RegisterEntry }>

const SAVED: MoveResult = { outcome: 'kept' }
/** Moves of one class; more is no class. */
const MAX_OF_CLASS = 2000
/** A day begins and ends on the studio's clock: rows of two days around it are enough to decide. */
const AROUND_A_DAY_MS = 2 * 86_400_000

/** The rider's numbers for a machine's type: those shown first of several sets, as that machine takes them. */
export async function numbersOn(tx: DbExecutor, scope: Scope, memberId: string, bike: StudioBike) {
  const entry = byDisplayPriority(await currentEntries(tx, scope, [memberId])).find((one) => one.lineId === bike.lineId)
  if (!entry) return null
  const { marks } = marksOnMachine(
    { bikeType: entry.type, bike: entry.machineCalibration ?? undefined, marks: entry.marks },
    { bikeType: bike.type, bike: bike.machineCalibration },
  )
  return { entry, marks }
}

/**
 * Moves one mark within the caller's transaction, which has locked the member: writes a register entry in force from
 * `at`, and the move. Writes nothing if the axis is not at `from`. Idempotent by id and content.
 */
export async function recordMove(
  tx: DbExecutor,
  scope: Scope,
  bike: StudioBike,
  { id, memberId, classId, ...move }: NewMove,
  at: Date,
): Promise<MoveResult> {
  const { axis, from, to, why, again } = move
  const [before] = await tx.select().from(markMove).where(eq(markMove.id, id))
  if (before) {
    const { studioId, bikeId, axis: itsAxis, toLabel } = before
    const same = { studioId: scope.studioId, bikeId: bike.id, axis, to }
    return { outcome: sameContent({ studioId, bikeId, axis: itsAxis, to: toLabel }, same) ? 'kept' : 'idTaken' }
  }
  const numbers = await numbersOn(tx, scope, memberId, bike)
  if (!numbers) return { outcome: 'noNumbers' }
  const { entry, marks } = numbers
  const scale = axisOf(bike.type, axis)?.scale
  if (!scale || findPosition(scale, to).outcome !== 'found') return { outcome: 'noMark' }
  if (marks[axis] !== from) return { outcome: 'elsewhere', label: marks[axis] ?? null, entry }
  if (!again && (await ridersMovedOnDay(tx, scope, [memberId], at)).has(memberId)) return { outcome: 'needsReason' }
  const written = await recordEntry(
    tx,
    scope,
    {
      ...newEntryOf(entry),
      id,
      typeId: bike.typeId,
      bikeId: bike.id,
      machineCalibration: bike.machineCalibration,
      marks: { ...marks, [axis]: to } satisfies Marks,
      source: 'moved',
      // What was looked at before was looked at elsewhere.
      certainty: why === 'checked' ? 'checked' : 'translated',
      meant: null,
      basis: { moved: move },
      fromId: entry.id,
    },
    at,
  )
  if (written.outcome !== 'kept') return written
  await tx.insert(markMove).values({
    id,
    studioId: scope.studioId,
    memberId,
    bikeId: bike.id,
    classId,
    axis,
    fromLabel: from,
    toLabel: to,
    why,
    again,
    fromEntryId: entry.id,
    createdAt: at,
    createdBy: scope.userId,
  })
  return SAVED
}

/**
 * Riders of whom a mark was moved, and not taken back, on the day of `at` on the studio's clock; moves during the class
 * `exceptClassId` do not count.
 */
export async function ridersMovedOnDay(
  tx: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  at: Date,
  exceptClassId: string | null = null,
): Promise<ReadonlySet<string>> {
  if (memberIds.length === 0) return new Set()
  const [{ timeZone }] = await tx
    .select({ timeZone: studio.timeZone })
    .from(studio)
    .where(eq(studio.id, scope.studioId))
  const moved = await tx
    .select({ memberId: markMove.memberId, at: markMove.createdAt, classId: markMove.classId })
    .from(markMove)
    .where(
      and(
        inArray(markMove.memberId, [...memberIds]),
        eq(markMove.studioId, scope.studioId),
        isNull(markMove.undoneAt),
        gte(markMove.createdAt, new Date(at.getTime() - AROUND_A_DAY_MS)),
      ),
    )
  const isThatDay = (one: Date) => studioDay(one, timeZone) === studioDay(at, timeZone)
  const counts = moved.filter((one) => isThatDay(one.at) && (!exceptClassId || one.classId !== exceptClassId))
  return new Set(counts.map(({ memberId }) => memberId))
}

/** One move; null where the studio has none of this id. */
export async function findMove(db: DbExecutor, scope: Scope, id: string): Promise<StoredMove | null> {
  const [found] = await db
    .select()
    .from(markMove)
    .where(and(eq(markMove.id, id), eq(markMove.studioId, scope.studioId)))
  return found ?? null
}

/**
 * Undoes a move within the caller's transaction, which has locked the member: restores the entry before it under the
 * given id. If other numbers followed, restores only the moved axis; if that axis moved on, the outcome is `elsewhere`.
 */
export async function undoMove(
  tx: DbExecutor,
  scope: Scope,
  { id, move }: Readonly<{ id: string; move: StoredMove }>,
  at: Date,
): Promise<MoveResult> {
  if (move.undoneAt) return SAVED
  const [own, before] = [await findEntry(tx, scope, move.id), await findEntry(tx, scope, move.fromEntryId)]
  if (!own || !before) return { outcome: 'gone' }
  const current = (await currentEntries(tx, scope, [move.memberId])).find(
    (one) => one.lineId === own.lineId && one.purpose === own.purpose,
  )
  if (!current) return { outcome: 'noNumbers' }
  const isOwn = current.id === own.id
  if (!isOwn && current.marks[move.axis] !== move.toLabel)
    return { outcome: 'elsewhere', label: current.marks[move.axis] ?? null, entry: current }
  const back = isOwn
    ? newEntryOf(before)
    : {
        ...newEntryOf(current),
        marks: { ...current.marks, [move.axis]: move.fromLabel },
        certainty: 'translated' as const,
      }
  const written = await recordEntry(tx, scope, { ...back, id, source: 'restored', fromId: before.id }, at)
  if (written.outcome !== 'kept') return written
  await tx.update(markMove).set({ undoneAt: at }).where(eq(markMove.id, move.id))
  return SAVED
}

/** The moves of a class that were not taken back, the oldest first. */
export async function listMovesOfClass(db: DbExecutor, scope: Scope, classId: string): Promise<MoveState[]> {
  const found = await db
    .select()
    .from(markMove)
    .where(and(eq(markMove.classId, classId), eq(markMove.studioId, scope.studioId), isNull(markMove.undoneAt)))
    .orderBy(asc(markMove.createdAt))
    .limit(MAX_OF_CLASS)
  return found.map(({ id, memberId, bikeId, axis, fromLabel, toLabel, why, again, createdAt }) => ({
    id,
    memberId,
    bikeId,
    axis,
    from: fromLabel,
    to: toLabel,
    why,
    ...(again && { again }),
    atMs: createdAt.getTime(),
  }))
}
