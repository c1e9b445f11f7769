import { and, asc, eq, inArray, lte, ne } from 'drizzle-orm'
import { AFTER_KINDS, type AfterKind, type FollowUpState } from '../../core/classes/watch/afterList'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { user } from '../platform/accounts/tables'
import { sealRow } from '../platform/sealing/sealed'
import { classFollowUp, classRider, bikeAssignment } from './tables'
import { studioClass } from './rooms/tables'
import { member } from '../riders/tables'

/** One line of the list after a class. */
export type FollowUpKey = Readonly<{ classId: string; memberId: string; kind: AfterKind }>

/** The state of a line, and who set it. */
export type FollowUp = FollowUpKey &
  Readonly<{ state: FollowUpState; handedTo: string | null; said: string; by: string; createdAt: Date }>

/** A line put to the rider's next class, or handed on: with the class it is from. */
export type OpenFollowUp = FollowUp & Readonly<{ name: string; title: string; startsAt: Date }>

const columns = {
  classId: classFollowUp.classId,
  memberId: classFollowUp.memberId,
  kind: classFollowUp.kind,
  state: classFollowUp.state,
  handedTo: classFollowUp.handedTo,
  said: classFollowUp.said,
  by: user.name,
  createdAt: classFollowUp.createdAt,
}
const withClass = { ...columns, name: member.name, title: studioClass.title, startsAt: studioClass.startsAt }
/** Maximum length of a stored line. */
const MAX_TEXT_LENGTH = 400
const MAX_LINES = 50

/** What became of the lines of one class. */
export const listFollowUps = (db: DbExecutor, scope: Scope, classId: string): Promise<FollowUp[]> =>
  db
    .select(columns)
    .from(classFollowUp)
    .innerJoin(user, eq(user.id, classFollowUp.createdBy))
    .where(and(eq(classFollowUp.classId, classId), eq(classFollowUp.studioId, scope.studioId)))

/** Lines of earlier classes that were put to the next class of the riders of this one, the oldest first. */
export async function listPutToClass(
  db: DbExecutor,
  scope: Scope,
  { id, startsAt }: Readonly<{ id: string; startsAt: Date }>,
): Promise<OpenFollowUp[]> {
  const { studioId } = scope
  const listed = await db
    .select({ memberId: classRider.memberId })
    .from(classRider)
    .where(and(eq(classRider.classId, id), eq(classRider.studioId, studioId), ne(classRider.state, 'cancelled')))
  const seated = await db
    .select({ memberId: bikeAssignment.memberId })
    .from(bikeAssignment)
    .where(and(eq(bikeAssignment.classId, id), eq(bikeAssignment.studioId, studioId)))
  const memberIds = [...new Set([...listed, ...seated].map(({ memberId }) => memberId))]
  if (memberIds.length === 0) return []
  return openLines(db)
    .where(
      and(
        eq(classFollowUp.studioId, studioId),
        eq(classFollowUp.state, 'nextClass'),
        inArray(classFollowUp.memberId, memberIds),
        lte(studioClass.endsAt, startsAt),
      ),
    )
    .orderBy(asc(studioClass.startsAt))
    .limit(MAX_LINES)
}

/** Lines that colleagues handed to the current user, the oldest first. */
export const listHandedToMe = (db: DbExecutor, { studioId, userId }: Scope): Promise<OpenFollowUp[]> =>
  openLines(db)
    .where(
      and(eq(classFollowUp.studioId, studioId), eq(classFollowUp.state, 'handed'), eq(classFollowUp.handedTo, userId)),
    )
    .orderBy(asc(classFollowUp.createdAt))
    .limit(MAX_LINES)

const openLines = (db: DbExecutor) =>
  db
    .select(withClass)
    .from(classFollowUp)
    .innerJoin(user, eq(user.id, classFollowUp.createdBy))
    .innerJoin(member, eq(member.id, classFollowUp.memberId))
    .innerJoin(studioClass, eq(studioClass.id, classFollowUp.classId))

/** `gone`: the studio has no such class, member or colleague. */
export type FollowUpResult = Readonly<{ outcome: 'kept' | 'gone' }>

/** Sets the state of a line; null opens it again. The latest call wins. */
export async function followUp(
  db: DbExecutor,
  scope: Scope,
  key: FollowUpKey,
  input: Readonly<{ state: FollowUpState | null; handedTo: string | null; said: string }>,
  now: Date,
): Promise<FollowUpResult> {
  const { studioId, userId } = scope
  const own = (table: typeof studioClass | typeof member | typeof user, id: string) =>
    db
      .select({ id: table.id })
      .from(table)
      .where(and(eq(table.id, id), eq(table.studioId, studioId)))
  const isListed =
    AFTER_KINDS.includes(key.kind) &&
    (await own(studioClass, key.classId)).length > 0 &&
    (await own(member, key.memberId)).length > 0
  if (!isListed) return { outcome: 'gone' }
  const { state } = input
  if (state === null) {
    const { classId, memberId, kind } = classFollowUp
    await db.delete(classFollowUp).where(and(eq(classId, key.classId), eq(memberId, key.memberId), eq(kind, key.kind)))
    return { outcome: 'kept' }
  }
  const handedTo = state === 'handed' ? input.handedTo : null
  if (state === 'handed' && (!handedTo || (await own(user, handedTo)).length === 0)) return { outcome: 'gone' }
  const said = input.said.slice(0, MAX_TEXT_LENGTH)
  const content = sealRow(classFollowUp, studioId, { state, handedTo, said, createdAt: now, createdBy: userId })
  await db
    .insert(classFollowUp)
    .values({ ...key, studioId, ...content })
    .onDuplicateKeyUpdate({ set: content })
  return { outcome: 'kept' }
}
