import { boolean, index, int, json, mysqlEnum, mysqlTable, primaryKey, text, varchar } from 'drizzle-orm/mysql-core'
import { AFTER_KINDS, FOLLOW_UPS } from '../../../core/watch/afterList'
import { createdBy, studioId, user } from './accounts'
import { bike } from './bikes'
import { id, moment, reference } from './columns'
import { studioClass } from './floor'
import { member } from './riders'

const classId = () =>
  reference('class_id')
    .notNull()
    .references(() => studioClass.id)
const memberId = () =>
  reference('member_id')
    .notNull()
    .references(() => member.id)

export const RIDER_STATES = ['booked', 'here', 'cancelled'] as const

/** Who comes to a class, and when; who called off stays, marked. Where they sit is `bikeAssignment`. */
export const classRider = mysqlTable(
  'class_rider',
  {
    classId: classId(),
    memberId: memberId(),
    studioId: studioId(),
    state: mysqlEnum('state', RIDER_STATES).notNull(),
    /** Minutes before the start at which they mean to come; minus is late. */
    comesMinBefore: int('comes_min_before').notNull(),
    rowWish: mysqlEnum('row_wish', ['front', 'back']),
    /** Set by hand: places are solved around it. */
    pinnedBikeId: reference('pinned_bike_id').references(() => bike.id),
    /** Left to the warm-up; marked until looked at. */
    warmUp: boolean('warm_up').notNull().default(false),
    createdAt: moment('created_at').notNull(),
    createdBy: reference('created_by').references(() => user.id),
  },
  (t) => [
    primaryKey({ columns: [t.classId, t.memberId] }),
    index('class_rider_member').on(t.memberId, t.createdAt),
    index('class_rider_studio').on(t.studioId),
  ],
)

/** What became of a line of the list after a class: the latest word on it. No row: still to see to. */
export const classFollowUp = mysqlTable(
  'class_follow_up',
  {
    classId: classId(),
    memberId: memberId(),
    kind: mysqlEnum('kind', AFTER_KINDS).notNull(),
    studioId: studioId(),
    state: mysqlEnum('state', FOLLOW_UPS).notNull(),
    /** Handed to whom; null in the other states. */
    handedTo: reference('handed_to').references(() => user.id),
    /** The line as it was, in words. */
    said: varchar('said', { length: 400 }).notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [
    primaryKey({ columns: [t.classId, t.memberId, t.kind] }),
    index('follow_up_member').on(t.memberId, t.state),
    index('follow_up_handed').on(t.studioId, t.state, t.handedTo),
  ],
)

/** Latest printed sheet of a class; `digest` of its content shows whether it is up to date. */
export const classSheetPrint = mysqlTable(
  'class_sheet_print',
  {
    classId: classId().primaryKey(),
    studioId: studioId(),
    digest: varchar('digest', { length: 64 }).notNull(),
    printedAt: moment('printed_at').notNull(),
  },
  (t) => [index('class_sheet_print_studio').on(t.studioId)],
)

/** Somebody was looked at, and all was well; with `numbers` their numbers were. */
export const classLook = mysqlTable(
  'class_look',
  {
    id: id(),
    studioId: studioId(),
    classId: classId(),
    memberId: memberId(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    numbers: boolean('numbers').notNull().default(false),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [index('class_look_class').on(t.classId, t.createdAt), index('class_look_studio').on(t.studioId)],
)

/** A cue said to the room, and what a second look then found, by rider. */
export const classCue = mysqlTable(
  'class_cue',
  {
    id: id(),
    studioId: studioId(),
    classId: classId(),
    sign: varchar('sign', { length: 40 }).notNull(),
    cue: varchar('cue', { length: 200 }).notNull(),
    /** Whom it concerned when it was said. */
    concerned: json('concerned').$type<readonly string[]>().notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [index('class_cue_class').on(t.classId, t.createdAt), index('class_cue_studio').on(t.studioId)],
)

/** A cue in the studio's own words. */
export const studioCue = mysqlTable(
  'studio_cue',
  {
    studioId: studioId(),
    sign: varchar('sign', { length: 40 }).notNull(),
    cue: text('cue').notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [primaryKey({ columns: [t.studioId, t.sign] })],
)
