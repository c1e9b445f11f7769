import { and, eq, inArray } from 'drizzle-orm'
import type { BikeType } from '../../core/bikes/bike/bike'
import type { Marks } from '../../core/base/conventions'
import type { Purpose } from '../../core/setups/register/entry'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { bike, bikeType } from '../bikes/tables'
import { registerEntry } from './tables'
import { member } from '../riders/tables'

export type Numbers = Readonly<{
  marks: Marks
  purpose: Purpose
  /** Null where they were set on no machine. */
  bikeNumber: number | null
  type: BikeType
  at: Date
}>

/** The latest numbers of each of these members, of any purpose. */
export async function latestNumbers(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
): Promise<Map<string, Numbers>> {
  if (memberIds.length === 0) return new Map()
  const rows = await db
    .select({
      memberId: member.id,
      at: registerEntry.createdAt,
      marks: registerEntry.marks,
      purpose: registerEntry.purpose,
      bikeNumber: bike.number,
      type: bikeType.definition,
    })
    .from(member)
    .innerJoin(registerEntry, eq(registerEntry.id, member.latestEntryId))
    .leftJoin(bike, eq(bike.id, registerEntry.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, registerEntry.typeId))
    .where(and(inArray(member.id, [...memberIds]), eq(member.studioId, scope.studioId)))
  return new Map(rows.map(({ memberId, ...numbers }) => [memberId, numbers]))
}
