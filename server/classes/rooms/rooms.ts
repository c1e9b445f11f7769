import { and, asc, count, eq, inArray } from 'drizzle-orm'
import type { RoomPlan, FloorPosition } from '../../../core/classes/planning/roomPlan'
import type { Scope } from '../../platform/accounts/scope'
import { tablet } from '../../platform/accounts/tables'
import { withTransaction, type Database, type DbExecutor } from '../../platform/db/connection'
import { isDuplicate } from '../../platform/db/errors'
import { bike } from '../../bikes/tables'
import { bikePlace, room, studioClass } from './tables'

export type Room = Readonly<{ id: string; name: string; plan: RoomPlan }>
export type BikePlace = FloorPosition & Readonly<{ bikeId: string; roomId: string }>

const columns = { id: room.id, name: room.name, plan: room.plan }

/** The rooms of a studio, the oldest first. */
export async function listRooms(db: DbExecutor, scope: Scope): Promise<Room[]> {
  return db.select(columns).from(room).where(eq(room.studioId, scope.studioId)).orderBy(asc(room.createdAt))
}

export async function findRoom(db: DbExecutor, scope: Scope, id: string): Promise<Room | null> {
  const [found] = await db
    .select(columns)
    .from(room)
    .where(and(eq(room.id, id), eq(room.studioId, scope.studioId)))
  return found ?? null
}

/** Places of the bikes of a studio; a bike outside all rooms has none. */
export async function listPlaces(db: DbExecutor, scope: Scope): Promise<BikePlace[]> {
  const { bikeId, roomId, xM, yM, headingDeg } = bikePlace
  return db.select({ bikeId, roomId, xM, yM, headingDeg }).from(bikePlace).where(eq(bikePlace.studioId, scope.studioId))
}

/** `nameTaken`: another room of the studio has this name; `gone`: no such room, or a bike that is not the studio's. */
export type RoomResult = Readonly<{ outcome: 'kept' | 'nameTaken' | 'gone' }>

/**
 * Saves a room with its bikes: a bike listed here leaves its former room, and a bike that is no longer listed has no
 * place. Idempotent.
 */
export async function saveRoom(
  db: Database,
  scope: Scope,
  { id, name, plan, places }: Room & Readonly<{ places: readonly (FloorPosition & Readonly<{ bikeId: string }>)[] }>,
  now: Date,
): Promise<RoomResult> {
  const { studioId } = scope
  try {
    return await withTransaction(db, async (tx): Promise<RoomResult> => {
      const [there] = await tx.select({ studioId: room.studioId }).from(room).where(eq(room.id, id)).for('update')
      if (there && there.studioId !== studioId) return { outcome: 'gone' }
      const ids = places.map(({ bikeId }) => bikeId)
      if (ids.length > 0) {
        const [{ own }] = await tx
          .select({ own: count() })
          .from(bike)
          .where(and(eq(bike.studioId, studioId), inArray(bike.id, ids)))
        if (own !== new Set(ids).size || own !== ids.length) return { outcome: 'gone' }
      }
      if (there) await tx.update(room).set({ name, plan }).where(eq(room.id, id))
      else await tx.insert(room).values({ id, studioId, name, plan, createdAt: now })
      await tx.delete(bikePlace).where(eq(bikePlace.roomId, id))
      if (ids.length === 0) return { outcome: 'kept' }
      await tx.delete(bikePlace).where(inArray(bikePlace.bikeId, ids))
      await tx
        .insert(bikePlace)
        .values(places.map(({ bikeId, xM, yM, headingDeg }) => ({ bikeId, studioId, roomId: id, xM, yM, headingDeg })))
      return { outcome: 'kept' }
    })
  } catch (error) {
    if (isDuplicate(error, 'room_name')) return { outcome: 'nameTaken' }
    throw error
  }
}

/** Deletes a room with its places; `inUse`: a class uses or used it, `gone`: there is no such room. */
export async function deleteRoom(
  db: Database,
  scope: Scope,
  id: string,
): Promise<Readonly<{ outcome: 'kept' | 'inUse' | 'gone' }>> {
  return withTransaction(db, async (tx) => {
    const own = and(eq(room.id, id), eq(room.studioId, scope.studioId))
    const [there] = await tx.select({ id: room.id }).from(room).where(own).for('update')
    if (!there) return { outcome: 'gone' }
    const [{ held: classCount }] = await tx
      .select({ held: count() })
      .from(studioClass)
      .where(eq(studioClass.roomId, id))
    if (classCount > 0) return { outcome: 'inUse' }
    await tx.delete(bikePlace).where(eq(bikePlace.roomId, id))
    await tx.update(tablet).set({ roomId: null }).where(eq(tablet.roomId, id))
    await tx.delete(room).where(own)
    return { outcome: 'kept' }
  })
}
