import { double, index, int, json, mysqlEnum, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { Block } from '../../../core/classes/plan/blocks'
import type { RoomPlan } from '../../../core/classes/planning/roomPlan'
import { studioId, user } from '../../platform/accounts/tables'
import { bike } from '../../bikes/tables'
import { id, moment, reference } from '../../platform/db/columns'

/** A room for classes, with its plan to scale. */
export const room = mysqlTable(
  'room',
  {
    id: id(),
    studioId: studioId(),
    name: varchar('name', { length: 80 }).notNull(),
    plan: json('plan').$type<RoomPlan>().notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (t) => [uniqueIndex('room_name').on(t.studioId, t.name)],
)

/** The place of a bike: in one room at most. */
export const bikePlace = mysqlTable(
  'bike_place',
  {
    bikeId: reference('bike_id')
      .primaryKey()
      .references(() => bike.id, { onDelete: 'cascade' }),
    studioId: studioId(),
    roomId: reference('room_id')
      .notNull()
      .references(() => room.id),
    xM: double('x_m').notNull(),
    yM: double('y_m').notNull(),
    headingDeg: double('heading_deg').notNull(),
  },
  (t) => [index('bike_place_room').on(t.roomId)],
)

export const CLASS_SOURCES = ['hand', 'calendar', 'list', 'booking', 'open'] as const

/** A class, or the open floor of a day; what was called off stays, marked. */
export const studioClass = mysqlTable(
  'studio_class',
  {
    id: id(),
    studioId: studioId(),
    roomId: reference('room_id').references(() => room.id),
    title: varchar('title', { length: 120 }).notNull(),
    startsAt: moment('starts_at').notNull(),
    endsAt: moment('ends_at').notNull(),
    source: mysqlEnum('source', CLASS_SOURCES).notNull(),
    /** Which one it is at its source: `uid` and the start as the source names it. Null where made by hand. */
    uid: varchar('uid', { length: 190 }),
    occurrence: varchar('occurrence', { length: 40 }),
    /** The day whose open floor this is, YYYY-MM-DD in the studio's time; null for a class. */
    openDay: varchar('open_day', { length: 10 }),
    hands: int('hands').notNull().default(1),
    /** Minutes before the start from which riders come in. */
    doorsMin: int('doors_min').notNull().default(20),
    blocks: json('blocks').$type<readonly Block[]>(),
    /** Who teaches it, if recorded. */
    teacherId: reference('teacher_id').references(() => user.id),
    cancelledAt: moment('cancelled_at'),
    createdAt: moment('created_at').notNull(),
    /** Null where it came from a booking service. */
    createdBy: reference('created_by').references(() => user.id),
  },
  (t) => [
    index('class_start').on(t.studioId, t.startsAt),
    uniqueIndex('class_source').on(t.studioId, t.uid, t.occurrence),
    uniqueIndex('class_open_day').on(t.studioId, t.openDay),
  ],
)
