import { boolean, double, index, int, json, mysqlEnum, mysqlTable, unique, varchar } from 'drizzle-orm/mysql-core'
import { CHANGED_AXES, WAYS, type Cause, type ComplaintName } from '../../core/comfort/model/causeTable'
import { REPORTERS, type Health, type Quality } from '../../core/comfort/model/complaint'
import { MOMENTS } from '../../core/comfort/model/request'
import { TRIAL_OUTCOMES } from '../../core/comfort/changes/trial'
import type { Programme } from '../../core/comfort/programme/programme'
import type { Marks } from '../../core/base/conventions'
import { studioId, user } from '../platform/accounts/tables'
import { bike } from '../bikes/tables'
import { id, moment, reference } from '../platform/db/columns'
import { sealed } from '../platform/sealing/sealed'
import { studioClass } from '../classes/rooms/tables'
import { memberLink } from '../riders/memberPage/tables'
import { registerEntry } from '../setups/tables'
import { member } from '../riders/tables'
import { classNote } from '../classes/tables'

const LIST = { type: ['object', 'array'] }
const textOf = (maxLength: number) => ({ type: 'string', maxLength })
const memberId = () =>
  reference('member_id')
    .notNull()
    .references(() => member.id)

/** Something a rider feels, reported by them or by the instructor; health data. */
export const complaint = mysqlTable(
  'complaint',
  {
    id: id(),
    studioId: studioId(),
    memberId: memberId(),
    /** On which bike, and in which class, as far as recorded. */
    bikeId: reference('bike_id').references(() => bike.id),
    classId: reference('class_id').references(() => studioClass.id),
    /** The note of the class it was taken up from. */
    noteId: reference('note_id').references(() => classNote.id),
    what: varchar('what', { length: 30 }).$type<ComplaintName>().notNull(),
    side: mysqlEnum('side', ['left', 'right', 'both']),
    strength: int('strength').notNull(),
    moment: mysqlEnum('moment', MOMENTS),
    lasts: boolean('lasts'),
    quality: sealed<readonly Quality[]>('complaint', 'quality', LIST).notNull(),
    health: sealed<readonly Health[]>('complaint', 'health', LIST).notNull(),
    line: sealed<string>('complaint', 'line', textOf(200)).notNull(),
    toldBy: mysqlEnum('told_by', REPORTERS).notNull(),
    /** The member's link it came by, where it did; links go into no archive. */
    linkId: reference('link_id').references(() => memberLink.id),
    createdAt: moment('created_at').notNull(),
    createdBy: reference('created_by').references(() => user.id),
    /** When the rider was referred, by whom, and who was informed. */
    handedAt: moment('handed_at'),
    handedBy: reference('handed_by').references(() => user.id),
    handedTo: sealed<string>('complaint', 'handed_to', textOf(120)),
    closedAt: moment('closed_at'),
    closedBy: reference('closed_by').references(() => user.id),
  },
  (t) => [index('complaint_member').on(t.memberId, t.createdAt), index('complaint_studio').on(t.studioId, t.createdAt)],
)

/** One change made for a complaint and left for a while: of a rider's numbers, or of a machine's saddle. */
export const trial = mysqlTable(
  'trial',
  {
    id: id(),
    studioId: studioId(),
    memberId: memberId(),
    complaintId: reference('complaint_id')
      .notNull()
      .references(() => complaint.id),
    cause: varchar('cause', { length: 30 }).$type<Cause>().notNull(),
    axis: mysqlEnum('axis', CHANGED_AXES).notNull(),
    direction: mysqlEnum('direction', WAYS).notNull(),
    /** The machine whose saddle was tilted; null where a rider's numbers were changed. */
    bikeId: reference('bike_id').references(() => bike.id),
    fromMarks: json('from_marks').$type<Marks>(),
    toMarks: json('to_marks').$type<Marks>(),
    mm: double('mm'),
    deg: double('deg'),
    large: boolean('large').notNull(),
    /** Sentences at the time it began. */
    said: sealed<string>('trial', 'said', textOf(400)).notNull(),
    because: sealed<readonly string[]>('trial', 'because', LIST).notNull(),
    expects: sealed<readonly string[]>('trial', 'expects', LIST).notNull(),
    /** Why it was begun while another was running. */
    reason: sealed<string>('trial', 'reason', textOf(200)),
    weeks: int('weeks').notNull(),
    ratingBefore: int('rating_before').notNull(),
    /** The register's entries before and with the change; null for a saddle. */
    fromEntryId: reference('from_entry_id').references(() => registerEntry.id),
    entryId: reference('entry_id').references(() => registerEntry.id),
    startedAt: moment('started_at').notNull(),
    startedBy: reference('started_by')
      .notNull()
      .references(() => user.id),
    endedAt: moment('ended_at'),
    endedBy: reference('ended_by').references(() => user.id),
    outcome: mysqlEnum('outcome', TRIAL_OUTCOMES),
  },
  (t) => [
    index('trial_member').on(t.memberId, t.startedAt),
    index('trial_running').on(t.studioId, t.endedAt, t.memberId),
    index('trial_bike').on(t.bikeId, t.endedAt),
  ],
)

/** Rating during a trial, 0 nothing to 10 as bad as can be; one per day, a later one replaces it. */
export const trialRating = mysqlTable(
  'trial_rating',
  {
    id: id(),
    studioId: studioId(),
    trialId: reference('trial_id')
      .notNull()
      .references(() => trial.id),
    rating: int('rating').notNull(),
    toldBy: mysqlEnum('told_by', REPORTERS).notNull(),
    linkId: reference('link_id').references(() => memberLink.id),
    createdAt: moment('created_at').notNull(),
    createdBy: reference('created_by').references(() => user.id),
  },
  (t) => [index('rating_trial').on(t.trialId, t.createdAt), index('rating_studio').on(t.studioId)],
)

/** Exercises given to a rider for some weeks, for a sign or complaint; health data. */
export const programme = mysqlTable(
  'programme',
  {
    id: id(),
    studioId: studioId(),
    memberId: memberId(),
    body: sealed<Programme>('programme', 'body', { $ref: '#/definitions/programme' }).notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: reference('created_by')
      .notNull()
      .references(() => user.id),
    /** When it was taken up again after a red flag. */
    resumedAt: moment('resumed_at'),
    endedAt: moment('ended_at'),
    endedBy: reference('ended_by').references(() => user.id),
  },
  (t) => [index('programme_member').on(t.memberId, t.createdAt), index('programme_studio').on(t.studioId, t.createdAt)],
)

/** A day on which a member did an exercise of their programme. */
export const programmeTick = mysqlTable(
  'programme_tick',
  {
    id: id(),
    studioId: studioId(),
    programmeId: reference('programme_id')
      .notNull()
      .references(() => programme.id),
    /** Which of the programme's exercises, from 0. */
    item: int('item').notNull(),
    /** On the studio's clock, YYYY-MM-DD. */
    day: varchar('day', { length: 10 }).notNull(),
    linkId: reference('link_id').references(() => memberLink.id),
    createdAt: moment('created_at').notNull(),
  },
  (t) => [unique('programme_tick_day').on(t.programmeId, t.item, t.day), index('programme_tick_studio').on(t.studioId)],
)
