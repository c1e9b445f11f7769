import { sql } from 'drizzle-orm'
import { bigint, index, int, json, mysqlEnum, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { Bike, BikeType } from '../../core/bikes/bike/bike'
import type { BikeEquipment } from '../../core/bikes/bike/equipment'
import { CARE_DEEDS, CARE_PARTS, type CareIntervals } from '../../core/bikes/care/care'
import type { InspectionItem } from '../../core/bikes/bike/inspection'
import type { SaddleModel } from '../../core/bikes/saddles/saddle'
import type { BikeReading } from '../../core/bikes/calibration/bikeReading'
import type { TypeCalibration } from '../../core/bikes/calibration/calibrate'
import type { TapeReading } from '../../core/bikes/calibration/readings'
import { createdBy, studioId, user } from '../platform/accounts/tables'
import { id, moment, reference } from '../platform/db/columns'

/** The version of a type and the readings that a machine's own offsets were computed from. */
export type MachineCalibrationSource = Readonly<{ typeId: string; readings: readonly string[] }>

/** What all versions of one type have in common: the name nobody else in the studio has. */
export const bikeTypeLine = mysqlTable(
  'bike_type_line',
  {
    id: id(),
    studioId: studioId(),
    /**
     * Name of the version in force. Compared without regard to capitals and accents, as the database's collation
     * does.
     */
    name: varchar('name', { length: 80 }).notNull(),
  },
  (t) => [uniqueIndex('bike_type_line_name').on(t.studioId, t.name)],
)

/** One version of a type; never changed. What one edits is a line of versions, the highest is in force. */
export const bikeType = mysqlTable(
  'bike_type',
  {
    id: id(),
    studioId: studioId(),
    /** All versions of one type share this. */
    lineId: reference('line_id')
      .notNull()
      .references(() => bikeTypeLine.id),
    version: int('version').notNull(),
    /** The type as the core reads it. */
    definition: json('definition').$type<BikeType>().notNull(),
    equipment: json('equipment').$type<BikeEquipment>().notNull(),
    /** What a tape found about this version, or null where it is as described. */
    calibration: json('calibration').$type<TypeCalibration>(),
    createdAt: moment('created_at').notNull(),
    createdBy: reference('created_by').references(() => user.id),
  },
  (t) => [uniqueIndex('bike_type_version').on(t.lineId, t.version)],
)

/** The tape at one setting, toward a type's next calibration. Append-only; a mistake is withdrawn. */
export const typeReading = mysqlTable(
  'type_reading',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    studioId: studioId(),
    /** The version whose labels it was read on. */
    typeId: reference('type_id')
      .notNull()
      .references(() => bikeType.id),
    row: json('row').$type<TapeReading>().notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
    withdrawnAt: moment('withdrawn_at'),
  },
  (t) => [index('type_reading_type').on(t.typeId, t.position)],
)

export const bike = mysqlTable(
  'bike',
  {
    id: id(),
    studioId: studioId(),
    typeId: reference('type_id')
      .notNull()
      .references(() => bikeType.id),
    number: int('number').notNull(),
    /** This machine's own offsets, as the core reads them: computed, never typed in. */
    machineCalibration: json('machine_calibration').$type<Bike>().notNull(),
    /** What `machineCalibration` was computed from: the version of the type and the readings, by id. */
    machineCalibrationSource: json('machine_calibration_source').$type<MachineCalibrationSource>(),
    /** Intervals of care that differ from the studio's, by part; null for none. */
    careIntervals: json('care_intervals').$type<CareIntervals>(),
    /** Retired bikes are offered nowhere; what was recorded on them stays. */
    retiredAt: moment('retired_at'),
    /** Computed by the database: the number while the bike is in the studio, so that a retired one's is free again. */
    takenNumber: int('taken_number').generatedAlwaysAs(sql`IF(\`retired_at\` IS NULL, \`number\`, NULL)`, {
      mode: 'stored',
    }),
  },
  (t) => [uniqueIndex('bike_taken_number').on(t.studioId, t.takenNumber)],
)

/**
 * Printed codes of machines: each opens its machine's page, without sign-in. One without an end is in force; one that
 * was changed opens nothing and says so. A code is no secret: no data of anybody are behind it.
 */
export const bikeCode = mysqlTable(
  'bike_code',
  {
    id: id(),
    studioId: studioId(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id, { onDelete: 'cascade' }),
    code: varchar('code', { length: 16 }).notNull().unique(),
    createdAt: moment('created_at').notNull(),
    endedAt: moment('ended_at'),
  },
  (t) => [index('bike_code_bike').on(t.bikeId, t.endedAt)],
)

/** What was measured on one machine: tape, tilt, saddle line. Append-only; a mistake is withdrawn. */
export const bikeReading = mysqlTable(
  'bike_reading',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    studioId: studioId(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    row: json('row').$type<BikeReading>().notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
    withdrawnAt: moment('withdrawn_at'),
  },
  (t) => [index('bike_reading_bike').on(t.bikeId, t.position)],
)

/** One inspection of a machine: which items passed. */
export const inspection = mysqlTable(
  'inspection',
  {
    id: id(),
    studioId: studioId(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    good: json('good').$type<readonly InspectionItem[]>().notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [index('inspection_bike').on(t.bikeId, t.createdAt)],
)

/** A part of a machine that was seen to, or replaced. Append-only; a mistake is withdrawn. */
export const bikeCare = mysqlTable(
  'bike_care',
  {
    id: id(),
    studioId: studioId(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    part: mysqlEnum('part', CARE_PARTS).notNull(),
    deed: mysqlEnum('deed', CARE_DEEDS).notNull(),
    note: varchar('note', { length: 300 }).notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
    withdrawnAt: moment('withdrawn_at'),
  },
  (t) => [index('bike_care_bike').on(t.bikeId, t.createdAt), index('bike_care_studio').on(t.studioId, t.part)],
)

/** A model of saddle in the studio's words. */
export const saddle = mysqlTable('saddle', {
  id: id(),
  studioId: studioId(),
  model: json('model').$type<SaddleModel>().notNull(),
  createdAt: moment('created_at').notNull(),
  createdBy: createdBy(),
})

/** Which saddle a machine carries, since when; the latest counts. Without a saddle: its type's own again. */
export const saddleFitting = mysqlTable(
  'saddle_fitting',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    id: reference('id').notNull().unique(),
    studioId: studioId(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    saddleId: reference('saddle_id').references(() => saddle.id),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [index('saddle_fitting_bike').on(t.bikeId, t.position)],
)

/** Something wrong with a machine; while one is open the bike is not offered. */
export const bikeFault = mysqlTable(
  'bike_fault',
  {
    id: id(),
    studioId: studioId(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    item: varchar('item', { length: 30 }).$type<InspectionItem>().notNull(),
    note: varchar('note', { length: 300 }).notNull(),
    foundAt: moment('found_at').notNull(),
    foundBy: reference('found_by')
      .notNull()
      .references(() => user.id),
    resolvedAt: moment('resolved_at'),
    resolvedBy: reference('resolved_by').references(() => user.id),
  },
  (t) => [index('bike_fault_bike').on(t.bikeId, t.foundAt)],
)
