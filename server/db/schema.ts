import { sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
  datetime,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  text,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core'
import type { Bike, BikeType } from '../../core/bike/bike'
import type { BikeReading } from '../../core/calibration/bikeReading'
import type { InspectionItem } from '../../core/bike/inspection'
import type { TypeSheet } from '../../core/bike/sheet'
import type { TypeCalibration } from '../../core/calibration/calibrate'
import type { TapeReading } from '../../core/calibration/readings'
import type { Evidence } from '../../core/evidence/evidence'
import type { School } from '../../core/school/school'

/** The version of a type and the readings that a machine's own offsets were computed from. */
export type OwnFrom = Readonly<{ typeId: string; readings: readonly string[] }>

/**
 * What was seen and done; whatever can be computed is computed. Times are UTC with milliseconds.
 * Ids are made by whoever writes, so that a retry is harmless.
 */
const id = () => varchar('id', { length: 36 }).primaryKey()
const reference = (name: string) => varchar(name, { length: 36 })
const moment = (name: string) => datetime(name, { mode: 'date', fsp: 3 })
const now = sql`CURRENT_TIMESTAMP(3)`

// Accounts: the tables and names the sign-in library expects.
export const user = mysqlTable('user', {
  id: id(),
  name: varchar('name', { length: 120 }).notNull(),
  email: varchar('email', { length: 190 }).notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  username: varchar('username', { length: 60 }).unique(),
  displayUsername: varchar('display_username', { length: 60 }),
  createdAt: moment('created_at').notNull().default(now),
  updatedAt: moment('updated_at').notNull().default(now),
})

export const session = mysqlTable('session', {
  id: id(),
  token: varchar('token', { length: 190 }).notNull().unique(),
  userId: reference('user_id')
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
  expiresAt: moment('expires_at').notNull(),
  ipAddress: varchar('ip_address', { length: 60 }),
  userAgent: text('user_agent'),
  createdAt: moment('created_at').notNull().default(now),
  updatedAt: moment('updated_at').notNull().default(now),
})

export const account = mysqlTable('account', {
  id: id(),
  accountId: varchar('account_id', { length: 190 }).notNull(),
  providerId: varchar('provider_id', { length: 60 }).notNull(),
  userId: reference('user_id')
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
  accessToken: text('access_token'),
  refreshToken: text('refresh_token'),
  idToken: text('id_token'),
  accessTokenExpiresAt: moment('access_token_expires_at'),
  refreshTokenExpiresAt: moment('refresh_token_expires_at'),
  scope: text('scope'),
  password: text('password'),
  createdAt: moment('created_at').notNull().default(now),
  updatedAt: moment('updated_at').notNull().default(now),
})

export const verification = mysqlTable('verification', {
  id: id(),
  identifier: varchar('identifier', { length: 190 }).notNull(),
  value: text('value').notNull(),
  expiresAt: moment('expires_at').notNull(),
  createdAt: moment('created_at').notNull().default(now),
  updatedAt: moment('updated_at').notNull().default(now),
})

/** Tries to sign in that failed, per account and per peer; kept by the rate-limiting library. */
export const signInTries = mysqlTable('sign_in_tries', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: int('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number', unsigned: true }),
})

export const rateLimit = mysqlTable('rate_limit', {
  id: id(),
  key: varchar('key', { length: 190 }).notNull().unique(),
  count: int('count').notNull(),
  lastRequest: bigint('last_request', { mode: 'number' }).notNull(),
})

// The studio and its bikes.
export const studio = mysqlTable('studio', {
  id: id(),
  name: varchar('name', { length: 120 }).notNull(),
  place: varchar('place', { length: 120 }).notNull(),
  timeZone: varchar('time_zone', { length: 60 }).notNull(),
  school: json('school').$type<Partial<School>>().notNull(),
})

/** What all versions of one type have in common: the name nobody else in the studio has. */
export const bikeTypeLine = mysqlTable(
  'bike_type_line',
  {
    id: id(),
    studioId: reference('studio_id')
      .notNull()
      .references(() => studio.id),
    /** Name of the version in force. Compared without regard to capitals and accents, as the database's collation does. */
    name: varchar('name', { length: 80 }).notNull(),
  },
  (t) => [uniqueIndex('bike_type_line_name').on(t.studioId, t.name)],
)

/** One version of a type; never changed. What one edits is a line of versions, the highest is in force. */
export const bikeType = mysqlTable(
  'bike_type',
  {
    id: id(),
    studioId: reference('studio_id')
      .notNull()
      .references(() => studio.id),
    /** All versions of one type share this. */
    lineId: reference('line_id')
      .notNull()
      .references(() => bikeTypeLine.id),
    version: int('version').notNull(),
    /** The type as the core reads it. */
    definition: json('definition').$type<BikeType>().notNull(),
    sheet: json('sheet').$type<TypeSheet>().notNull(),
    /** What a tape found about this version, or null where it is as described. */
    calibration: json('calibration').$type<TypeCalibration>(),
    madeAt: moment('made_at').notNull(),
    madeBy: reference('made_by').references(() => user.id),
  },
  (t) => [uniqueIndex('bike_type_version').on(t.lineId, t.version)],
)

/** The tape at one setting, toward a type's next calibration. Append-only; a mistake is withdrawn. */
export const typeReading = mysqlTable(
  'type_reading',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    /** The version whose labels it was read on. */
    typeId: reference('type_id')
      .notNull()
      .references(() => bikeType.id),
    row: json('row').$type<TapeReading>().notNull(),
    at: moment('at').notNull(),
    by: reference('by')
      .notNull()
      .references(() => user.id),
    withdrawnAt: moment('withdrawn_at'),
  },
  (t) => [index('type_reading_type').on(t.typeId, t.position)],
)

export const bike = mysqlTable(
  'bike',
  {
    id: id(),
    studioId: reference('studio_id')
      .notNull()
      .references(() => studio.id),
    typeId: reference('type_id')
      .notNull()
      .references(() => bikeType.id),
    number: int('number').notNull(),
    /** This machine's own offsets, as the core reads them: computed, never typed in. */
    own: json('own').$type<Bike>().notNull(),
    /** What `own` was computed from: the version of the type and the readings, by id. */
    ownFrom: json('own_from').$type<OwnFrom>(),
  },
  (t) => [uniqueIndex('bike_number').on(t.studioId, t.number)],
)

/** What was measured on one machine: tape, tilt, saddle line. Append-only; a mistake is withdrawn. */
export const bikeReading = mysqlTable(
  'bike_reading',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    row: json('row').$type<BikeReading>().notNull(),
    at: moment('at').notNull(),
    by: reference('by')
      .notNull()
      .references(() => user.id),
    withdrawnAt: moment('withdrawn_at'),
  },
  (t) => [index('bike_reading_bike').on(t.bikeId, t.position)],
)

/** One look over a machine: which items held. */
export const inspection = mysqlTable(
  'inspection',
  {
    id: id(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    good: json('good').$type<readonly InspectionItem[]>().notNull(),
    at: moment('at').notNull(),
    by: reference('by')
      .notNull()
      .references(() => user.id),
  },
  (t) => [index('inspection_bike').on(t.bikeId, t.at)],
)

/** Something wrong with a machine; while one is open the bike is not offered. */
export const bikeFault = mysqlTable(
  'bike_fault',
  {
    id: id(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    item: varchar('item', { length: 30 }).$type<InspectionItem>().notNull(),
    note: varchar('note', { length: 300 }).notNull(),
    foundAt: moment('found_at').notNull(),
    foundBy: reference('found_by')
      .notNull()
      .references(() => user.id),
    clearedAt: moment('cleared_at'),
    clearedBy: reference('cleared_by').references(() => user.id),
  },
  (t) => [index('bike_fault_bike').on(t.bikeId, t.foundAt)],
)

// Riders and what was seen of them.
export const member = mysqlTable(
  'member',
  {
    id: id(),
    studioId: reference('studio_id')
      .notNull()
      .references(() => studio.id),
    name: varchar('name', { length: 120 }).notNull(),
    addedAt: moment('added_at').notNull(),
    addedBy: reference('added_by')
      .notNull()
      .references(() => user.id),
    /** The set-up whose numbers hold, written with it in one transaction: a list of thousands asks no history. */
    latestSetupId: reference('latest_setup_id'),
  },
  (t) => [index('member_name').on(t.studioId, t.name), index('member_latest').on(t.studioId, t.latestSetupId, t.name)],
)

export const setup = mysqlTable(
  'setup',
  {
    id: id(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    /** The version of the type it was made on; its labels mean that version's millimetres. */
    typeId: reference('type_id')
      .notNull()
      .references(() => bikeType.id),
    /** The machine's own offsets when it was begun. */
    own: json('own').$type<Bike>().notNull(),
    startedAt: moment('started_at').notNull(),
    startedBy: reference('started_by')
      .notNull()
      .references(() => user.id),
    finishedAt: moment('finished_at'),
    finishedBy: reference('finished_by').references(() => user.id),
    /** The row of evidence that set the saved numbers. */
    numbersId: reference('numbers_id'),
    /** `member/bike` while it is open, null once finished: one open set-up of a member on a bike, held by the database. */
    openKey: varchar('open_key', { length: 73 }).unique(),
  },
  (t) => [
    index('setup_member').on(t.memberId, t.startedAt),
    index('setup_saved').on(t.memberId, t.finishedAt),
    index('setup_bike_saved').on(t.bikeId, t.finishedAt),
  ],
)

/** Append-only: rows are never changed; what was a mistake is withdrawn by a row of its own. */
export const evidence = mysqlTable(
  'evidence',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    setupId: reference('setup_id')
      .notNull()
      .references(() => setup.id),
    row: json('row').$type<Evidence>().notNull(),
    seenAt: moment('seen_at').notNull(),
    seenBy: reference('seen_by')
      .notNull()
      .references(() => user.id),
  },
  (t) => [index('evidence_setup').on(t.setupId, t.position)],
)

export const withdrawal = mysqlTable('withdrawal', {
  evidenceId: varchar('evidence_id', { length: 36 })
    .primaryKey()
    .references(() => evidence.id),
  at: moment('at').notNull(),
  by: reference('by')
    .notNull()
    .references(() => user.id),
})

/** Everything that was said of who sits where, in order; an empty rider freed the bike. What holds now is `bikeAssignment`. */
export const seating = mysqlTable(
  'seating',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    memberId: reference('member_id').references(() => member.id),
    /** Day in the studio's time zone, YYYY-MM-DD. */
    day: varchar('day', { length: 10 }).notNull(),
    at: moment('at').notNull(),
    by: reference('by')
      .notNull()
      .references(() => user.id),
  },
  (t) => [index('seating_day').on(t.day, t.bikeId)],
)

/** Who sits where on a studio's day: one rider a bike, one bike a rider, held by the database. A free bike has no row. */
export const bikeAssignment = mysqlTable(
  'bike_assignment',
  {
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    day: varchar('day', { length: 10 }).notNull(),
    assignedAt: moment('assigned_at').notNull(),
    assignedBy: reference('assigned_by')
      .notNull()
      .references(() => user.id),
  },
  (t) => [primaryKey({ columns: [t.day, t.bikeId] }), uniqueIndex('assignment_member').on(t.day, t.memberId)],
)

export const classNote = mysqlTable(
  'class_note',
  {
    id: id(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    region: varchar('region', { length: 20 }).notNull(),
    sign: varchar('sign', { length: 40 }).notNull(),
    side: mysqlEnum('side', ['left', 'right', 'both']).notNull(),
    madeAt: moment('made_at').notNull(),
    madeBy: reference('made_by')
      .notNull()
      .references(() => user.id),
    withdrawnAt: moment('withdrawn_at'),
  },
  (t) => [index('note_member').on(t.memberId, t.madeAt), index('note_made').on(t.madeAt)],
)
