import { double, index, json, mysqlEnum, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { PEDAL_SIDES, type Bike } from '../../../core/bike/bike'
import type { Marks } from '../../../core/conventions'
import type { MeantReason } from '../../../core/evidence/kinds/set'
import { CERTAINTIES, PURPOSES, SOURCES, type Basis } from '../../../core/register/entry'
import { createdBy, studioId } from './accounts'
import { bike, bikeType, bikeTypeLine } from './bikes'
import { id, moment, reference } from './columns'
import { member, setup } from './riders'

/**
 * Every set of numbers a rider was ever given, append-only: going back to an earlier one is a row of its own. What
 * holds now is `registerCurrent`.
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
    /** Since when these very marks hold without a break. */
    sinceAt: moment('since_at').notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [
    index('register_member').on(t.memberId, t.createdAt),
    index('register_set').on(t.memberId, t.lineId, t.purpose, t.createdAt),
    index('register_studio').on(t.studioId, t.createdAt),
  ],
)

/** The numbers that hold: one set a rider, type and purpose, written with its entry in one transaction. */
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

/** The words of every member's name, so that three letters of any of them find it without reading all names. */
export const memberWord = mysqlTable(
  'member_word',
  {
    studioId: studioId(),
    word: varchar('word', { length: 120 }).notNull(),
    /** With the word first, what is found by it lies in the order of names already. */
    name: varchar('name', { length: 120 }).notNull(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
  },
  (t) => [
    primaryKey({ columns: [t.studioId, t.word, t.name, t.memberId] }),
    index('member_word_member').on(t.memberId),
  ],
)
