import { eq, inArray, type SQL } from 'drizzle-orm'
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import {
  bikeAssignment,
  bikeAssignmentLog,
  classFollowUp,
  classLook,
  classNote,
  classRider,
  markMove,
} from '../classes/tables'
import { complaint, programme, programmeTick, trial, trialRating } from '../comfort/tables'
import type { DbExecutor } from '../platform/db/connection'
import { memberLink, memberMessage } from '../riders/memberPage/tables'
import { consent, member, memberMerge, memberWord, riderLimit, riderPlan } from '../riders/tables'
import { evidence, registerCurrent, registerEntry, riderFile, setup, setupSchool, withdrawal } from '../setups/tables'

/** Rows of one table that belong to a member. `name` is that of the section in an archive, or of the table. */
export type MemberTable = Readonly<{
  name: string
  table: MySqlTable
  /** The condition that selects only the member's rows. */
  of: (db: DbExecutor, memberId: string) => SQL
}>

const own = (name: string, table: MySqlTable & Readonly<{ memberId: AnyMySqlColumn }>): MemberTable => ({
  name,
  table,
  of: (_, memberId) => eq(table.memberId, memberId),
})
const setupsOf = (db: DbExecutor, memberId: string) =>
  db.select({ id: setup.id }).from(setup).where(eq(setup.memberId, memberId))
const evidenceOf = (db: DbExecutor, memberId: string) =>
  db
    .select({ id: evidence.id })
    .from(evidence)
    .where(inArray(evidence.setupId, setupsOf(db, memberId)))

/** All that belongs to one member; rows that others refer to come after those, as they may be deleted. */
export const MEMBER_TABLES: readonly MemberTable[] = [
  {
    name: 'trialRatings',
    table: trialRating,
    of: (db, memberId) =>
      inArray(trialRating.trialId, db.select({ id: trial.id }).from(trial).where(eq(trial.memberId, memberId))),
  },
  own('trials', trial),
  {
    name: 'programmeTicks',
    table: programmeTick,
    of: (db, memberId) =>
      inArray(
        programmeTick.programmeId,
        db.select({ id: programme.id }).from(programme).where(eq(programme.memberId, memberId)),
      ),
  },
  own('programmes', programme),
  own('complaints', complaint),
  own('followUps', classFollowUp),
  own('looks', classLook),
  own('moves', markMove),
  own('notes', classNote),
  own('assignments', bikeAssignment),
  own('assignmentLog', bikeAssignmentLog),
  own('classRiders', classRider),
  own('registerCurrent', registerCurrent),
  own('register', registerEntry),
  {
    name: 'withdrawals',
    table: withdrawal,
    of: (db, memberId) => inArray(withdrawal.evidenceId, evidenceOf(db, memberId)),
  },
  { name: 'evidence', table: evidence, of: (db, memberId) => inArray(evidence.setupId, setupsOf(db, memberId)) },
  {
    name: 'setupSchools',
    table: setupSchool,
    of: (db, memberId) => inArray(setupSchool.setupId, setupsOf(db, memberId)),
  },
  own('setups', setup),
  own('riderFiles', riderFile),
  own('consents', consent),
  own('limits', riderLimit),
  own('plans', riderPlan),
  own('memberMessages', memberMessage),
  own('memberLinks', memberLink),
  own('memberMerges', memberMerge),
  own('memberWords', memberWord),
  { name: 'members', table: member, of: (_, memberId) => eq(member.id, memberId) },
]
