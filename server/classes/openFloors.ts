import { and, eq, isNotNull } from 'drizzle-orm'
import type { Database } from '../platform/db/connection'
import { studio } from '../platform/accounts/tables'
import { studioClass } from './rooms/tables'
import { dayAfter, momentAt } from '../studio/day'

/**
 * Corrects open floors that migration 0010 created with UTC days (00:00:00 to 23:59:59) to days of the studio's zone.
 * Idempotent. Returns the number of corrected floors.
 */
export async function settleOpenFloors(db: Database): Promise<number> {
  const floors = await db
    .select({
      id: studioClass.id,
      day: studioClass.openDay,
      startsAt: studioClass.startsAt,
      endsAt: studioClass.endsAt,
      timeZone: studio.timeZone,
    })
    .from(studioClass)
    .innerJoin(studio, eq(studio.id, studioClass.studioId))
    .where(and(isNotNull(studioClass.openDay), eq(studioClass.source, 'open')))
  const wrong = floors.filter(({ day, endsAt }) => endsAt.getTime() === Date.parse(`${day}T23:59:59Z`))
  for (const { id, day, timeZone } of wrong)
    await db
      .update(studioClass)
      .set({ startsAt: momentAt(day!, '00:00', timeZone), endsAt: momentAt(dayAfter(day!, 1), '00:00', timeZone) })
      .where(eq(studioClass.id, id))
  return wrong.length
}
