import { and, asc, count, eq, isNull } from 'drizzle-orm'
import type { Bike, BikeType } from '../../core/bike/bike'
import type { Access } from '../db/connection'
import { bike, bikeFault, bikeType } from '../db/schema'

/** One machine with the version of its type that is in force. A bike with an open fault is not offered. */
export type StudioBike = Readonly<{ id: string; number: number; own: Bike; type: BikeType; typeId: string; lineId: string; openFaults: number }>

const columns = { id: bike.id, number: bike.number, own: bike.own, type: bikeType.definition, typeId: bikeType.id, lineId: bikeType.lineId }

/** All bikes of a studio, by number. */
export async function bikesOf(db: Access, studioId: string): Promise<StudioBike[]> {
  const found = await db.select(columns).from(bike).innerJoin(bikeType, eq(bike.typeId, bikeType.id)).where(eq(bike.studioId, studioId)).orderBy(asc(bike.number))
  const faults = await db.select({ bikeId: bikeFault.bikeId, open: count() }).from(bikeFault).where(isNull(bikeFault.clearedAt)).groupBy(bikeFault.bikeId)
  const openOf = new Map(faults.map((f) => [f.bikeId, f.open]))
  return found.map((b) => ({ ...b, openFaults: openOf.get(b.id) ?? 0 }))
}

/** One bike, or null when there is none of this id. */
export async function bikeById(db: Access, id: string): Promise<StudioBike | null> {
  const [found] = await db.select(columns).from(bike).innerJoin(bikeType, eq(bike.typeId, bikeType.id)).where(eq(bike.id, id))
  if (!found) return null
  const [{ open }] = await db.select({ open: count() }).from(bikeFault).where(and(eq(bikeFault.bikeId, id), isNull(bikeFault.clearedAt)))
  return { ...found, openFaults: open }
}

/** Bikes that may be offered to a rider. */
export const offered = (bikes: readonly StudioBike[]): StudioBike[] => bikes.filter((b) => b.openFaults === 0)

/** Adds machines of a type under numbers nobody has; the numbers already taken, or none when all were added. */
export async function addBikes(db: Access, added: Readonly<{ studioId: string; typeId: string; numbers: readonly number[]; own: Bike }>): Promise<number[]> {
  const taken = (await db.select({ number: bike.number }).from(bike).where(eq(bike.studioId, added.studioId))).map((b) => b.number)
  const again = added.numbers.filter((number) => taken.includes(number))
  if (again.length > 0) return again
  for (const number of added.numbers) await db.insert(bike).values({ id: crypto.randomUUID(), studioId: added.studioId, typeId: added.typeId, number, own: added.own })
  return []
}

/** Removes a machine nothing was ever recorded on; false where something was, or where there is none. */
export async function removeBike(db: Access, id: string): Promise<boolean> {
  try {
    const [{ affectedRows }] = await db.delete(bike).where(eq(bike.id, id))
    return affectedRows > 0
  } catch (error) {
    if ((error as { cause?: { errno?: number } }).cause?.errno === REFERRED_TO) return false
    throw error
  }
}

/** The database's word for a row that others refer to. */
const REFERRED_TO = 1451
