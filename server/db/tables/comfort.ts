import { boolean, double, index, int, json, mysqlEnum, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import type { Cause, ComplaintName } from '../../../core/complaints/causeTable'
import type { ChangedAxis, Expected, Way } from '../../../core/complaints/change'
import { HEALTH, MOMENTS, type Complaint, type ExplainRequest } from '../../../core/complaints/request'
import type { Marks } from '../../../core/conventions'
import { PURPOSES } from '../../../core/register/entry'
import { createdBy, studioId, user } from './accounts'
import { bike, bikeType } from './bikes'
import { id, moment, reference } from './columns'
import { studioClass } from './floor'
import { registerEntry } from './register'
import { member } from './riders'

export const COMPLAINT_SOURCES = ['instructor', 'member'] as const
export const TRIAL_OUTCOMES = ['keep', 'undo', 'next'] as const

const memberId = () =>
  reference('member_id')
    .notNull()
    .references(() => member.id)

/** Something a rider feels: told to an instructor or from the member's own page. */
export const complaint = mysqlTable(
  'complaint',
  {
    id: id(),
    studioId: studioId(),
    memberId: memberId(),
    /** On which bike and in which class, where that is known. */
    bikeId: reference('bike_id').references(() => bike.id),
    classId: reference('class_id').references(() => studioClass.id),
    what: varchar('what', { length: 30 }).$type<ComplaintName>().notNull(),
    side: mysqlEnum('side', ['left', 'right', 'both']),
    /** 0 nothing to 10 as bad as can be. */
    strength: int('strength').notNull(),
    moment: mysqlEnum('moment', MOMENTS),
    lasts: boolean('lasts').notNull().default(false),
    quality: json('quality').$type<NonNullable<Complaint['quality']>>().notNull(),
    health: json('health').$type<NonNullable<ExplainRequest['health']>>().notNull(),
    source: mysqlEnum('source', COMPLAINT_SOURCES).notNull(),
    createdAt: moment('created_at').notNull(),
    /** Null for what a member said from their own page. */
    createdBy: reference('created_by').references(() => user.id),
    /** Handed on: to whom or with what words, when, and by whom. */
    handedTo: varchar('handed_to', { length: 200 }),
    handedAt: moment('handed_at'),
    handedBy: reference('handed_by').references(() => user.id),
    /** Nothing of it is left. */
    closedAt: moment('closed_at'),
  },
  (t) => [index('complaint_member').on(t.memberId, t.createdAt), index('complaint_studio').on(t.studioId, t.createdAt)],
)
export { HEALTH }

/** A change for comfort on trial; `endedAt` is null while it runs. */
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
    /** Of a tilt: the bike, which others ride too. */
    bikeId: reference('bike_id').references(() => bike.id),
    typeId: reference('type_id').references(() => bikeType.id),
    purpose: mysqlEnum('purpose', PURPOSES),
    axis: varchar('axis', { length: 20 }).$type<ChangedAxis>().notNull(),
    direction: varchar('direction', { length: 10 }).$type<Way>().notNull(),
    fromMarks: json('from_marks').$type<Marks>().notNull(),
    toMarks: json('to_marks').$type<Marks>().notNull(),
    mm: double('mm'),
    deg: double('deg'),
    large: boolean('large').notNull(),
    /** Why, in words, and what the checks should read. */
    because: json('because').$type<readonly string[]>().notNull(),
    expects: json('expects').$type<readonly Expected[]>().notNull(),
    /** Why a second change runs beside another. */
    reason: varchar('reason', { length: 300 }),
    weeks: int('weeks').notNull(),
    ratingBefore: int('rating_before').notNull(),
    /** The numbers that held before, and those of the trial; null for a tilt. */
    fromEntryId: reference('from_entry_id').references(() => registerEntry.id),
    entryId: reference('entry_id').references(() => registerEntry.id),
    startedAt: moment('started_at').notNull(),
    createdBy: createdBy(),
    endedAt: moment('ended_at'),
    outcome: mysqlEnum('outcome', TRIAL_OUTCOMES),
    endedBy: reference('ended_by').references(() => user.id),
  },
  (t) => [
    index('trial_member').on(t.memberId, t.startedAt),
    index('trial_studio').on(t.studioId, t.startedAt),
    index('trial_bike').on(t.bikeId),
  ],
)

/** How it feels during a trial: 0 nothing to 10 as bad as can be. */
export const trialRating = mysqlTable(
  'trial_rating',
  {
    id: id(),
    studioId: studioId(),
    trialId: reference('trial_id')
      .notNull()
      .references(() => trial.id),
    strength: int('strength').notNull(),
    createdAt: moment('created_at').notNull(),
    /** Null for what a member said from their own page. */
    createdBy: reference('created_by').references(() => user.id),
  },
  (t) => [index('trial_rating_trial').on(t.trialId, t.createdAt), index('trial_rating_studio').on(t.studioId)],
)
