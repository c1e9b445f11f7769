import { and, eq, getTableColumns, inArray } from 'drizzle-orm'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import type { MemberFileNames, MemberRows } from '../../core/messages/riders/memberFile'
import { bike, bikeType } from '../bikes/tables'
import { studioClass } from '../classes/rooms/tables'
import { studio, user } from '../platform/accounts/tables'
import type { DbExecutor } from '../platform/db/connection'
import type { Scope } from '../platform/accounts/scope'
import { member } from '../riders/tables'
import { MEMBER_TABLES } from './memberRows'

const FORMAT = 'yielding-saddle-member'
const FORMAT_VERSION = 1
/** Implied, counted by the database, or secrets that open a page. */
const LEFT_OUT = ['studioId', 'position', 'tokenHash', 'linkId', 'openKey']
/** Columns with the id of something that has a name. */
const BIKES = ['bikeId', 'pinnedBikeId']
const PEOPLE = ['createdBy', 'startedBy', 'finishedBy', 'endedBy', 'handedBy', 'closedBy', 'handledBy', 'handedTo']

type AnyRow = Readonly<Record<string, unknown>>

/** All rows of one member, and names for the ids in them. */
export type MemberFile = Readonly<{
  format: typeof FORMAT
  formatVersion: number
  studio: string
  madeAt: Date
  rows: MemberRows & Readonly<Record<string, readonly AnyRow[]>>
  names: MemberFileNames & Readonly<{ people: Readonly<Record<string, string>> }>
}>

/** The file of a member; null where the studio has no such member. Lengths are in millimetres, times UTC. */
export async function memberFile(
  db: DbExecutor,
  { studioId }: Pick<Scope, 'studioId'>,
  memberId: string,
  now: Date,
): Promise<MemberFile | null> {
  const own = and(eq(member.id, memberId), eq(member.studioId, studioId))
  if ((await db.select({ id: member.id }).from(member).where(own)).length === 0) return null
  const rows: Record<string, AnyRow[]> = {}
  for (const { name, table, of } of [...MEMBER_TABLES].reverse()) {
    if (name === 'memberWords') continue
    const columns = Object.entries(getTableColumns(table)).filter(([column]) => !LEFT_OUT.includes(column))
    const found = db.select(Object.fromEntries(columns) as Record<string, AnyMySqlColumn>).from(table)
    rows[name] = (await found.where(of(db, memberId))) as AnyRow[]
  }
  const ids = (columns: readonly string[]) => [
    ...new Set(
      Object.values(rows)
        .flat()
        .flatMap((row) => columns.map((column) => row[column]))
        .filter((id) => typeof id === 'string'),
    ),
  ]
  const [{ name, timeZone }] = await db.select().from(studio).where(eq(studio.id, studioId))
  return {
    format: FORMAT,
    formatVersion: FORMAT_VERSION,
    studio: name,
    madeAt: now,
    rows: rows as unknown as MemberFile['rows'],
    names: { timeZone, ...(await namesOf(db, studioId, ids)) },
  }
}

async function namesOf(db: DbExecutor, studioId: string, ids: (columns: readonly string[]) => string[]) {
  const bikeIds = ids(BIKES)
  const bikes = await db
    .select({ id: bike.id, number: bike.number, type: bikeType.definition })
    .from(bike)
    .innerJoin(bikeType, eq(bikeType.id, bike.typeId))
    .where(and(eq(bike.studioId, studioId), inArray(bike.id, bikeIds.length > 0 ? bikeIds : [''])))
  const types = await db
    .select({ id: bikeType.id, definition: bikeType.definition })
    .from(bikeType)
    .where(and(eq(bikeType.studioId, studioId), inArray(bikeType.id, [...ids(['typeId']), ''])))
  const classes = await db
    .select({ id: studioClass.id, title: studioClass.title, startsAt: studioClass.startsAt })
    .from(studioClass)
    .where(and(eq(studioClass.studioId, studioId), inArray(studioClass.id, [...ids(['classId']), ''])))
  const people = await db
    .select({ id: user.id, name: user.name })
    .from(user)
    .where(and(eq(user.studioId, studioId), inArray(user.id, [...ids(PEOPLE), ''])))
  return {
    bikes: Object.fromEntries(bikes.map(({ id, number, type }) => [id, { number, type: type.name }])),
    bikeTypes: Object.fromEntries(types.map(({ id, definition }) => [id, definition])),
    classes: Object.fromEntries(classes.map(({ id, title, startsAt }) => [id, { title, startsAt }])),
    people: Object.fromEntries(people.map(({ id, name }) => [id, name])),
  }
}
