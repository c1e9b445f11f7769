import { index, int, mysqlEnum, mysqlTable, text, uniqueIndex, varchar, primaryKey } from 'drizzle-orm/mysql-core'
import { CONSENT_WAYS } from '../../core/riders/consent/consent'
import { PLAN_KINDS, type Plan } from '../../core/riders/plans/plan'
import { LIMIT_KINDS, type Limit, type LimitKind } from '../../core/riders/limits/limits'
import { createdBy, studioId, user } from '../platform/accounts/tables'
import { id, moment, reference } from '../platform/db/columns'
import { sealed } from '../platform/sealing/sealed'

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

/** Limits of riders, recorded with their consent; health data. Ended limits stay, with the time of their end. */
export const riderLimit = mysqlTable(
  'rider_limit',
  {
    id: id(),
    studioId: studioId(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    kind: sealed<LimitKind>('rider_limit', 'kind', { enum: [...LIMIT_KINDS] }).notNull(),
    body: sealed<Limit>('rider_limit', 'body', { $ref: '#/definitions/limit' }).notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
    endedAt: moment('ended_at'),
    endedBy: reference('ended_by').references(() => user.id),
  },
  (t) => [index('rider_limit_member').on(t.memberId, t.endedAt), index('rider_limit_studio').on(t.studioId, t.endedAt)],
)

/**
 * What is to be done for riders later. A plan that recurs stores the time of its latest look; one that was done or
 * dropped stays, with the time of its end.
 */
export const riderPlan = mysqlTable(
  'rider_plan',
  {
    id: id(),
    studioId: studioId(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    kind: mysqlEnum('kind', PLAN_KINDS).notNull(),
    body: sealed<Plan>('rider_plan', 'body', { $ref: '#/definitions/plan' }).notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
    lookedAt: moment('looked_at'),
    endedAt: moment('ended_at'),
    endedBy: reference('ended_by').references(() => user.id),
  },
  (t) => [index('rider_plan_member').on(t.memberId, t.endedAt), index('rider_plan_studio').on(t.studioId, t.endedAt)],
)

/**
 * Members who were erased, by id alone. Where a restore or an archive brings one of them back, they are erased again.
 */
export const erasure = mysqlTable(
  'erasure',
  {
    studioId: studioId(),
    memberId: reference('member_id').notNull(),
    createdAt: moment('created_at').notNull(),
    erasedBy: reference('erased_by').references(() => user.id),
  },
  (t) => [primaryKey({ columns: [t.studioId, t.memberId] })],
)

/** A studio's own wordings of the consent, never changed; the highest version is in force. */
export const consentWording = mysqlTable(
  'consent_wording',
  {
    studioId: studioId(),
    version: int('version').notNull(),
    wording: text('wording').notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [primaryKey({ columns: [t.studioId, t.version] })],
)

/** That a member agreed to health notes, to which wording, when and how. A withdrawn consent stays, with its end. */
export const consent = mysqlTable(
  'consent',
  {
    id: id(),
    studioId: studioId(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    wordingVersion: int('wording_version').notNull(),
    way: mysqlEnum('way', CONSENT_WAYS).notNull(),
    createdAt: moment('created_at').notNull(),
    /** Who heard it; null where the member agreed on their own page. */
    createdBy: reference('created_by').references(() => user.id),
    endedAt: moment('ended_at'),
    endedBy: reference('ended_by').references(() => user.id),
  },
  (t) => [index('consent_member').on(t.memberId, t.endedAt), index('consent_studio').on(t.studioId)],
)
