import { and, asc, eq, isNotNull, isNull, ne, sql, type SQLWrapper } from 'drizzle-orm'
import { FIRST_HOUR_STEPS, type FirstHourStep } from '../../../core/messages/studio/firstHour'
import { bike, bikeType } from '../../bikes/tables'
import { room, studioClass } from '../../classes/rooms/tables'
import { invitation, studio, user } from '../../platform/accounts/tables'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { member } from '../../riders/tables'
import { registerEntry } from '../../setups/tables'

/** Which steps of the first hour are done. */
export type FirstHourDone = Readonly<Record<FirstHourStep, boolean>>

/** The first hour with what its forms need. */
export type FirstHourPage = Readonly<{
  done: FirstHourDone
  /** The bikes a first rider may sit on, by number. */
  bikes: readonly Readonly<{ id: string; number: number }>[]
}>

/** Bikes to choose the first rider's from; more belong to a page of their own. */
const MAX_BIKES = 60

/** Which steps are done, in one query. A school is looked over once it was saved. */
export async function firstHourDone(db: DbExecutor, { studioId, userId }: Scope): Promise<FirstHourDone> {
  const one = { one: sql`1` }
  const has = (rows: SQLWrapper) => sql<number>`exists(${rows})`
  const ofStudio = (table: typeof bike | typeof member | typeof room | typeof bikeType | typeof registerEntry) =>
    eq(table.studioId, studioId)
  const [found] = await db
    .select({
      school: studio.school,
      bikes: has(db.select(one).from(bike).where(ofStudio(bike))),
      rider: has(db.select(one).from(registerEntry).where(ofStudio(registerEntry))),
      tape: has(
        db
          .select(one)
          .from(bikeType)
          .where(and(ofStudio(bikeType), isNotNull(bikeType.calibration))),
      ),
      room: has(db.select(one).from(room).where(ofStudio(room))),
      members: has(db.select(one).from(member).where(ofStudio(member)).limit(1).offset(1)),
      people: has(
        db
          .select(one)
          .from(user)
          .where(and(eq(user.studioId, studioId), ne(user.id, userId))),
      ),
      invited: has(db.select(one).from(invitation).where(eq(invitation.studioId, studioId))),
      timetable: has(
        db
          .select(one)
          .from(studioClass)
          .where(and(eq(studioClass.studioId, studioId), isNull(studioClass.openDay))),
      ),
    })
    .from(studio)
    .where(eq(studio.id, studioId))
  const isDone = {
    ...found,
    people: found.people || found.invited,
    school: Object.keys(found.school).length > 0,
  }
  return Object.fromEntries(FIRST_HOUR_STEPS.map((step) => [step, Boolean(isDone[step])])) as FirstHourDone
}

export async function firstHourPage(db: DbExecutor, scope: Scope): Promise<FirstHourPage> {
  const bikes = await db
    .select({ id: bike.id, number: bike.number })
    .from(bike)
    .where(and(eq(bike.studioId, scope.studioId), isNull(bike.retiredAt)))
    .orderBy(asc(bike.number))
    .limit(MAX_BIKES)
  return { done: await firstHourDone(db, scope), bikes }
}
