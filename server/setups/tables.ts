import {
  boolean,
  double,
  index,
  json,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  varchar,
  bigint,
} from 'drizzle-orm/mysql-core'
import { PEDAL_SIDES, type Bike } from '../../core/bikes/bike/bike'
import type { Marks } from '../../core/base/conventions'
import type { MeantReason } from '../../core/riders/evidence/kinds/onBike/set'
import { CERTAINTIES, PURPOSES, SOURCES, type Basis } from '../../core/setups/register/entry'
import type { BodyBelief } from '../../core/riders/inference/bodyBelief'
import type { CarriedSet, RiderFile } from '../../core/riders/riderFile/riderFile'
import { createdBy, studioId, user } from '../platform/accounts/tables'
import { bike, bikeType, bikeTypeLine } from '../bikes/tables'
import { id, moment, reference } from '../platform/db/columns'
import { sealed } from '../platform/sealing/sealed'
import { member } from '../riders/tables'
import type { Evidence } from '../../core/riders/evidence/registry'
import type { School } from '../../core/base/school/school'

/** What the rider let a studio take of their file. */
export type TakenFile = Readonly<{
  studio: string
  sets: readonly CarriedSet[]
  body: BodyBelief | null
  wish: RiderFile['wish'] | null
  /** Which of the file's limits, from 0. */
  limits: readonly number[]
}>

/**
 * Every set of numbers a rider was ever given, append-only: going back to an earlier one is a row of its own. What
 * is in force is `registerCurrent`.
 */
export const registerEntry = mysqlTable(
  'register_entry',
  {
    id: id(),
    studioId: studioId(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    lineId: reference('line_id')
      .notNull()
      .references(() => bikeTypeLine.id),
    /** The version of the type whose labels these are. */
    typeId: reference('type_id')
      .notNull()
      .references(() => bikeType.id),
    purpose: mysqlEnum('purpose', PURPOSES).notNull(),
    source: mysqlEnum('source', SOURCES).notNull(),
    certainty: mysqlEnum('certainty', CERTAINTIES).notNull(),
    marks: json('marks').$type<Marks>().notNull(),
    /** The machine they were set on, with its offsets of then; null where they were for no machine. */
    bikeId: reference('bike_id').references(() => bike.id),
    machineCalibration: json('machine_calibration').$type<Bike>(),
    soleMm: double('sole_mm'),
    pedal: mysqlEnum('pedal', PEDAL_SIDES),
    meant: varchar('meant', { length: 20 }).$type<MeantReason>(),
    basis: json('basis').$type<Basis>().notNull(),
    setupId: reference('setup_id').references(() => setup.id),
    /** The entry they were made from. */
    fromId: reference('from_id'),
    /** Since when these marks are in force without a break. */
    sinceAt: moment('since_at').notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
    /** Saved by a trainee: a second person looks them over. */
    awaitsConfirmation: boolean('awaits_confirmation').notNull().default(false),
    confirmedBy: reference('confirmed_by').references(() => user.id),
    confirmedAt: moment('confirmed_at'),
  },
  (t) => [
    index('register_waiting').on(t.studioId, t.awaitsConfirmation),
    index('register_member').on(t.memberId, t.createdAt),
    index('register_set').on(t.memberId, t.lineId, t.purpose, t.createdAt),
    index('register_studio').on(t.studioId, t.createdAt),
  ],
)

/** The numbers in force: one set a rider, type and purpose, written with its entry in one transaction. */
export const registerCurrent = mysqlTable(
  'register_current',
  {
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    lineId: reference('line_id')
      .notNull()
      .references(() => bikeTypeLine.id),
    purpose: mysqlEnum('purpose', PURPOSES).notNull(),
    studioId: studioId(),
    entryId: reference('entry_id')
      .notNull()
      .references(() => registerEntry.id),
  },
  (t) => [primaryKey({ columns: [t.memberId, t.lineId, t.purpose] })],
)

export const setup = mysqlTable(
  'setup',
  {
    id: id(),
    studioId: studioId(),
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
    machineCalibration: json('machine_calibration').$type<Bike>().notNull(),
    startedAt: moment('started_at').notNull(),
    startedBy: reference('started_by')
      .notNull()
      .references(() => user.id),
    finishedAt: moment('finished_at'),
    finishedBy: reference('finished_by').references(() => user.id),
    /** The row of evidence that set the saved numbers. */
    numbersId: reference('numbers_id'),
    /**
     * `member/bike` while it is open, null once finished: a unique key for one open set-up per member and bike.
     */
    openKey: varchar('open_key', { length: 73 }).unique(),
  },
  (t) => [
    index('setup_member').on(t.memberId, t.startedAt),
    index('setup_saved').on(t.memberId, t.finishedAt),
    index('setup_bike_saved').on(t.bikeId, t.finishedAt),
    index('setup_studio_saved').on(t.studioId, t.finishedAt),
  ],
)

/** Append-only: rows are never changed; what was a mistake is withdrawn by a row of its own. */
export const evidence = mysqlTable(
  'evidence',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    studioId: studioId(),
    setupId: reference('setup_id')
      .notNull()
      .references(() => setup.id),
    row: json('row').$type<Evidence>().notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [index('evidence_setup').on(t.setupId, t.position)],
)

/**
 * Numbers that somebody set alone by a machine's code and left their name with, until an instructor looked at them:
 * then their rows are part of a set-up, and this row goes. What nobody looked at goes after a month.
 */
export const aloneSetup = mysqlTable(
  'alone_setup',
  {
    id: id(),
    studioId: studioId(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id, { onDelete: 'cascade' }),
    name: varchar('name', { length: 120 }).notNull(),
    marks: json('marks').$type<Marks>().notNull(),
    /** What they read of themselves, in order. */
    rows: sealed<readonly Evidence[]>('alone_setup', 'own_rows', { type: 'array' }).notNull(),
    createdAt: moment('created_at').notNull(),
    /** Put aside without a look. */
    endedAt: moment('ended_at'),
  },
  (t) => [
    index('alone_setup_studio').on(t.studioId, t.endedAt, t.createdAt),
    index('alone_setup_bike').on(t.bikeId, t.createdAt),
  ],
)

/** What was taken of a rider's own file from another studio: numbers as they came, and the body as it was believed. */
export const riderFile = mysqlTable(
  'rider_file',
  {
    id: id(),
    studioId: studioId(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    /** SHA-256 of the file's canonical JSON, hexadecimal. */
    hash: varchar('hash', { length: 64 }).notNull(),
    isMeasured: boolean('is_measured').notNull(),
    content: sealed<TakenFile>('rider_file', 'content', { type: 'object' }).notNull(),
    issuedAt: moment('issued_at').notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [
    index('rider_file_member').on(t.memberId, t.issuedAt),
    index('rider_file_studio').on(t.studioId, t.createdAt),
  ],
)

/** Where a set-up goes by another school than the studio's: append-only, the latest counts. */
export const setupSchool = mysqlTable(
  'setup_school',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    studioId: studioId(),
    setupId: reference('setup_id')
      .notNull()
      .references(() => setup.id),
    school: json('school').$type<Partial<School>>().notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [index('setup_school_setup').on(t.setupId, t.position)],
)

export const withdrawal = mysqlTable('withdrawal', {
  evidenceId: varchar('evidence_id', { length: 36 })
    .primaryKey()
    .references(() => evidence.id),
  studioId: studioId(),
  createdAt: moment('created_at').notNull(),
  createdBy: createdBy(),
})
