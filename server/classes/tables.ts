import {
  boolean,
  index,
  int,
  json,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  text,
  varchar,
  bigint,
  uniqueIndex,
} from 'drizzle-orm/mysql-core'
import { AFTER_KINDS, FOLLOW_UPS } from '../../core/classes/watch/afterList'
import { createdBy, studioId, user } from '../platform/accounts/tables'
import { bike } from '../bikes/tables'
import { id, moment, reference } from '../platform/db/columns'
import { sealed } from '../platform/sealing/sealed'
import { studioClass } from './rooms/tables'
import { member } from '../riders/tables'
import { AXES } from '../../core/base/conventions'
import { POSTURES, type HandPosition } from '../../core/classes/plan/blocks'
import { AGAIN_REASONS, MOVE_REASONS } from '../../core/setups/moves/move'
import { registerEntry } from '../setups/tables'

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
    said: sealed<string>('class_follow_up', 'said', { type: 'string', maxLength: 400 }).notNull(),
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

/** A cue to the room, and the result of a second look, by rider. */
export const classCue = mysqlTable(
  'class_cue',
  {
    id: id(),
    studioId: studioId(),
    classId: classId(),
    sign: varchar('sign', { length: 40 }).notNull(),
    cue: varchar('cue', { length: 200 }).notNull(),
    /** Whom it concerned at that time. */
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
    /** Where the hands lay: 1 the nearest, 3 the farthest. */
    hands: int('hands').$type<HandPosition>(),
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

/**
 * A mark moved on a bike between two set-ups; its numbers are the register's entry of the same id. One that was taken
 * back stays, marked.
 */
export const markMove = mysqlTable(
  'mark_move',
  {
    id: id().references(() => registerEntry.id),
    studioId: studioId(),
    memberId: memberId(),
    bikeId: reference('bike_id')
      .notNull()
      .references(() => bike.id),
    /** Null outside a class. */
    classId: reference('class_id').references(() => studioClass.id),
    axis: mysqlEnum('axis', AXES).notNull(),
    fromLabel: varchar('from_label', { length: 40 }).notNull(),
    toLabel: varchar('to_label', { length: 40 }).notNull(),
    why: mysqlEnum('why', MOVE_REASONS).notNull(),
    /** Why it did not wait, where another change came before it. */
    again: mysqlEnum('again', AGAIN_REASONS),
    /** The register's entry it began from. */
    fromEntryId: reference('from_entry_id')
      .notNull()
      .references(() => registerEntry.id),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
    undoneAt: moment('undone_at'),
  },
  (t) => [
    index('mark_move_class').on(t.classId, t.createdAt),
    index('mark_move_member').on(t.memberId, t.createdAt),
    index('mark_move_studio').on(t.studioId, t.createdAt),
  ],
)
