import { asc, eq } from 'drizzle-orm'
import type { Bike, BikeType } from '../../core/bike/bike'
import type { Access } from '../db/connection'
import { bike, bikeType } from '../db/schema'

/** One machine with its type. */
export type StudioBike = Readonly<{ id: string; number: number; own: Bike; type: BikeType }>

const columns = { id: bike.id, number: bike.number, own: bike.own, type: bikeType.definition }

/** All bikes of a studio, by number. */
export async function bikesOf(db: Access, studioId: string): Promise<StudioBike[]> {
  return db.select(columns).from(bike).innerJoin(bikeType, eq(bike.typeId, bikeType.id)).where(eq(bike.studioId, studioId)).orderBy(asc(bike.number))
}

/** One bike, or null when there is none of this id. */
export async function bikeById(db: Access, id: string): Promise<StudioBike | null> {
  const [found] = await db.select(columns).from(bike).innerJoin(bikeType, eq(bike.typeId, bikeType.id)).where(eq(bike.id, id))
  return found ?? null
}
