import {
  bigint,
  boolean,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core'
import type { Bike } from '../../../core/bike/bike'
import { POSTURES } from '../../../core/classPlan/blocks'
import type { Evidence } from '../../../core/evidence/registry'
import type { School } from '../../../core/school/school'
import { createdBy, studioId, user } from './accounts'
import { bike, bikeType } from './bikes'
import { id, moment, reference } from './columns'
import { studioClass } from './floor'

export const member = mysqlTable(
  'member',
  {
    id: id(),
    studioId: studioId(),
    name: varchar('name', { length: 120 }).notNull(),
    /** The studio's own number of the member, as on their card; unique within a studio. */
    number: varchar('number', { length: 40 }),
    email: varchar('email', { length: 254 }),
    /** Height without shoes as a list gave it; opens the first set-up, where it outranks nothing measured. */
    statureMm: int('stature_mm'),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
    /** The set-up saved last, denormalized so that a list of thousands reads no history. */
    latestSetupId: reference('latest_setup_id'),
    /** The register's latest numbers of any purpose. */
    latestEntryId: reference('latest_entry_id'),
  },
  (t) => [
    uniqueIndex('member_number').on(t.studioId, t.number),
    index('member_name').on(t.studioId, t.name),
    index('member_latest').on(t.studioId, t.latestSetupId, t.name),
    index('member_numbers').on(t.studioId, t.latestEntryId, t.name),
  ],
)

/** A member merged into another: their rows are the other's now, and an address with the old id leads there. */
export const memberMerge = mysqlTable(
  'member_merge',
  {
    /** The id of the member who was merged. */
    id: id(),
    studioId: studioId(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    name: varchar('name', { length: 120 }).notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [index('member_merge_member').on(t.memberId), index('member_merge_studio').on(t.studioId)],
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

/**
 * Log of all seat assignments of a class, in order; a null rider freed the bike. The current state is
 * `bikeAssignment`.
 */
export const bikeAssignmentLog = mysqlTable(
  'bike_assignment_log',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    studioId: studioId(),
    classId: reference('class_id')
      .notNull()
      .references(() => studioClass.id),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    memberId: reference('member_id').references(() => member.id),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [
    index('assignment_log_class').on(t.classId, t.bikeId),
    index('assignment_log_studio').on(t.studioId, t.createdAt),
  ],
)

/** Seats of a class: unique keys for one rider per bike and one bike per rider. A free bike has no row. */
export const bikeAssignment = mysqlTable(
  'bike_assignment',
  {
    studioId: studioId(),
    classId: reference('class_id')
      .notNull()
      .references(() => studioClass.id),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [
    primaryKey({ columns: [t.classId, t.bikeId] }),
    uniqueIndex('seat_of_member').on(t.classId, t.memberId),
    index('assignment_of_member').on(t.memberId, t.createdAt),
    index('assignment_of_studio').on(t.studioId, t.createdAt),
  ],
)

/** Something seen or felt in a class. */
export const classNote = mysqlTable(
  'class_note',
  {
    id: id(),
    studioId: studioId(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    region: varchar('region', { length: 20 }).notNull(),
    sign: varchar('sign', { length: 40 }).notNull(),
    side: mysqlEnum('side', ['left', 'right', 'both']).notNull(),
    /** Null for notes from before there were classes. */
    classId: reference('class_id').references(() => studioClass.id),
    strength: mysqlEnum('strength', ['slight', 'clear']),
    /** What is felt, 0–10; null for what is seen. */
    score: int('score'),
    /** Minute of the class, from 0. */
    minute: int('minute'),
    posture: mysqlEnum('posture', POSTURES),
    /** Whether the rider got the cue. */
    cued: boolean('cued').notNull().default(false),
    /** Whether it had changed at a second look; null before. */
    held: boolean('held'),
    heldAt: moment('held_at'),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
    withdrawnAt: moment('withdrawn_at'),
  },
  (t) => [
    index('note_member').on(t.memberId, t.createdAt),
    index('note_created').on(t.studioId, t.createdAt),
    index('note_class').on(t.classId, t.createdAt),
  ],
)
