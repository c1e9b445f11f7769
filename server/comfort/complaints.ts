import { and, desc, eq, gte, inArray, isNotNull, isNull, type SQL } from 'drizzle-orm'
import type { ComplaintName } from '../../core/comfort/model/causeTable'
import {
  COMPLAINT_OF_FELT,
  COMPLAINT_OF_RED_FLAG,
  REPORTERS,
  type Health,
  type Moment,
  type Quality,
} from '../../core/comfort/model/complaint'
import { redFlagsOf } from '../../core/comfort/model/redFlags'
import type { Complaint } from '../../core/comfort/model/request'
import { FELT, feltNamed, RED_FLAG, redFlagNamed } from '../../core/classes/watch/comfort'
import type { Scope } from '../platform/accounts/scope'
import type { Database, DbExecutor } from '../platform/db/connection'
import { insertOnce, type WriteResult } from '../platform/db/insertOnce'
import { sealRow } from '../platform/sealing/sealed'
import { bike } from '../bikes/tables'
import { complaint } from './tables'
import { member } from '../riders/tables'
import { classNote } from '../classes/tables'
import { writeFromPage, type TooMany } from '../riders/memberPage/daily'
import type { LinkOwner } from '../riders/memberPage/links'

/** A stored complaint. */
export type RiderComplaint = Readonly<{
  id: string
  memberId: string
  bikeId: string | null
  classId: string | null
  noteId: string | null
  what: ComplaintName
  side: 'left' | 'right' | 'both' | null
  strength: number
  moment: Moment | null
  lasts: boolean | null
  quality: readonly Quality[]
  health: readonly Health[]
  line: string
  toldBy: (typeof REPORTERS)[number]
  createdAt: Date
  handedAt: Date | null
  handedTo: string | null
  closedAt: Date | null
}>

/** Fields of a new complaint; missing fields are unknown. */
export type NewComplaint = Readonly<{ id: string; what: ComplaintName; strength: number }> &
  Readonly<
    Partial<Pick<RiderComplaint, 'bikeId' | 'classId' | 'side' | 'moment' | 'lasts' | 'quality' | 'health' | 'line'>>
  >

const columns = {
  id: complaint.id,
  memberId: complaint.memberId,
  bikeId: complaint.bikeId,
  classId: complaint.classId,
  noteId: complaint.noteId,
  what: complaint.what,
  side: complaint.side,
  strength: complaint.strength,
  moment: complaint.moment,
  lasts: complaint.lasts,
  quality: complaint.quality,
  health: complaint.health,
  line: complaint.line,
  toldBy: complaint.toldBy,
  createdAt: complaint.createdAt,
  handedAt: complaint.handedAt,
  handedTo: complaint.handedTo,
  closedAt: complaint.closedAt,
}
const MAX_COMPLAINTS_READ = 200
/** Something felt on the floor is still open so long, ms; ours. */
export const FELT_OPEN_MS = 42 * 86_400_000

/** A rider's complaints, the latest first. */
export const listComplaints = (db: DbExecutor, scope: Scope, memberId: string): Promise<RiderComplaint[]> =>
  complaintsWhere(db, scope, eq(complaint.memberId, memberId), MAX_COMPLAINTS_READ)

/** Open complaints of the studio, the latest first. */
export const listOpenComplaints = (db: DbExecutor, scope: Scope): Promise<RiderComplaint[]> =>
  complaintsWhere(db, scope, isNull(complaint.closedAt), MAX_COMPLAINTS_READ)

/** Complaints of these riders, the latest first. */
export const listComplaintsOf = async (
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
): Promise<RiderComplaint[]> =>
  memberIds.length === 0
    ? []
    : complaintsWhere(db, scope, inArray(complaint.memberId, [...memberIds]), MAX_COMPLAINTS_READ * memberIds.length)

/** Open complaints of these riders, the latest first. */
export const openComplaints = async (
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
): Promise<RiderComplaint[]> =>
  memberIds.length === 0
    ? []
    : complaintsWhere(
        db,
        scope,
        and(inArray(complaint.memberId, [...memberIds]), isNull(complaint.closedAt)),
        MAX_COMPLAINTS_READ * 5,
      )

/** Complaints of one rider that were recorded from notes, of any age, also closed ones. */
export const complaintsOfNotes = (db: DbExecutor, scope: Scope, memberId: string): Promise<RiderComplaint[]> =>
  complaintsWhere(
    db,
    scope,
    and(eq(complaint.memberId, memberId), isNotNull(complaint.noteId)),
    MAX_COMPLAINTS_READ * 5,
  )

async function complaintsWhere(
  db: DbExecutor,
  scope: Scope,
  condition: SQL | undefined,
  most: number,
): Promise<RiderComplaint[]> {
  return db
    .select(columns)
    .from(complaint)
    .where(and(eq(complaint.studioId, scope.studioId), condition))
    .orderBy(desc(complaint.createdAt))
    .limit(most)
}

/**
 * Open complaints of one rider: stored ones, and recent notes of what was felt on the floor, as complaints under the
 * note's id. Of several notes of one place and side the latest counts.
 */
export async function complaintsToAnswer(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  now: Date,
): Promise<RiderComplaint[]> {
  // A query of its own: newer closed complaints do not push open ones out.
  const [ownComplaints, open, ofNotes, felt] = [
    await listComplaints(db, scope, memberId),
    await openComplaints(db, scope, [memberId]),
    await complaintsOfNotes(db, scope, memberId),
    await feltAsComplaints(db, scope, [memberId], now),
  ]
  const taken = new Set(ofNotes.map(({ noteId }) => noteId))
  const reported = new Set<string>()
  return [
    ...open,
    ...felt.filter(({ id, createdAt, what }) => !taken.has(id) && !answeredSince(ownComplaints, what, createdAt)),
  ]
    .sort((a, b) => b.createdAt.getTime() - a.createdAt.getTime())
    .filter(({ what, side, toldBy, noteId }) => {
      const key = `${what} ${side}`
      const again = reported.has(key) && toldBy === 'instructor' && noteId !== null
      reported.add(key)
      return !again
    })
}

/** What was felt before the same was closed went with it. */
const answeredSince = (complaints: readonly RiderComplaint[], what: ComplaintName, at: Date): boolean =>
  complaints.some((one) => one.what === what && one.closedAt !== null && one.closedAt >= at)

/** What these riders felt on the floor in the last six weeks, mapped to complaints, the latest first. */
export async function feltAsComplaints(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  now: Date,
): Promise<RiderComplaint[]> {
  if (memberIds.length === 0) return []
  const { id, bikeId, classId, region, side, score, createdAt } = classNote
  const found = await db
    .select({ id, memberId: classNote.memberId, bikeId, classId, region, side, score, createdAt })
    .from(classNote)
    .where(
      and(
        inArray(classNote.memberId, [...memberIds]),
        eq(classNote.studioId, scope.studioId),
        eq(classNote.sign, FELT),
        gte(classNote.createdAt, new Date(now.getTime() - FELT_OPEN_MS)),
        isNull(classNote.withdrawnAt),
      ),
    )
    .orderBy(desc(classNote.createdAt))
    .limit(MAX_COMPLAINTS_READ * memberIds.length)
  return found.flatMap(({ region: where, score: strength, ...note }): RiderComplaint[] => {
    const felt = feltNamed(where)
    if (!felt || !strength) return []
    return [
      {
        ...note,
        noteId: note.id,
        what: COMPLAINT_OF_FELT[felt.region],
        strength,
        moment: null,
        lasts: null,
        quality: [],
        health: [],
        line: '',
        toldBy: 'instructor',
        handedAt: null,
        handedTo: null,
        closedAt: null,
      },
    ]
  })
}

/** `gone`: the studio has no such member, bike or class. */
export type ComplaintResult = WriteResult | Readonly<{ outcome: 'gone' }>

/** Adds a complaint reported to an instructor. Idempotent: a retry with the same id and content changes nothing. */
export async function addComplaint(
  db: DbExecutor,
  scope: Scope,
  input: NewComplaint & Readonly<{ memberId: string; noteId?: string | null }>,
  now: Date,
): Promise<ComplaintResult> {
  const { studioId, userId } = scope
  if (!(await isOwn(db, studioId, input))) return { outcome: 'gone' }
  const withFlag = input.noteId ? await withFlagOf(db, input.noteId, input) : input
  return insert(db, { ...withFlag, studioId, toldBy: 'instructor' }, { createdAt: now, createdBy: userId })
}

/** Adds the quality, duration and health of a red flag to the complaint that is created from it. */
async function withFlagOf<C extends NewComplaint>(db: DbExecutor, noteId: string, complaint: C): Promise<C> {
  const [note] = await db
    .select({ sign: classNote.sign, region: classNote.region })
    .from(classNote)
    .where(eq(classNote.id, noteId))
  const flag = note?.sign === RED_FLAG ? redFlagNamed(note.region) : undefined
  if (!flag) return complaint
  const { lasts, quality = [], health = [] } = COMPLAINT_OF_RED_FLAG[flag.flag]
  return {
    ...complaint,
    ...(lasts && { lasts }),
    quality: [...new Set([...(complaint.quality ?? []), ...quality])],
    health: [...new Set([...(complaint.health ?? []), ...health])],
  }
}

/** Adds a complaint from the member's own page. `tooMany`: the member reached the daily limit. */
export async function addOwnComplaint(
  db: Database,
  { studioId, memberId, linkId }: Pick<LinkOwner, 'studioId' | 'memberId' | 'linkId'>,
  input: NewComplaint,
  now: Date,
): Promise<ComplaintResult | TooMany> {
  const values = { ...input, bikeId: null, classId: null, memberId, studioId, toldBy: 'member' } as const
  return writeFromPage(db, { linkId, memberId }, { table: complaint, id: input.id }, now, (tx) =>
    insert(tx, values, { createdAt: now, linkId }),
  )
}

/** Whether member and bike are the studio's, and the note is one of this member. */
async function isOwn(
  db: DbExecutor,
  studioId: string,
  { memberId, bikeId, noteId }: Readonly<{ memberId: string; bikeId?: string | null; noteId?: string | null }>,
): Promise<boolean> {
  const [found] = await db
    .select({ bikeId: bike.id, noteId: classNote.id })
    .from(member)
    .leftJoin(bike, and(eq(bike.studioId, studioId), eq(bike.id, bikeId ?? '')))
    .leftJoin(classNote, and(eq(classNote.memberId, member.id), eq(classNote.id, noteId ?? '')))
    .where(and(eq(member.id, memberId), eq(member.studioId, studioId)))
  return found !== undefined && (!bikeId || found.bikeId !== null) && (!noteId || found.noteId !== null)
}

async function insert(
  db: DbExecutor,
  input: NewComplaint &
    Readonly<{ memberId: string; studioId: string; toldBy: RiderComplaint['toldBy']; noteId?: string | null }>,
  written: Readonly<{ createdAt: Date; createdBy?: string; linkId?: string }>,
): Promise<WriteResult> {
  const content = {
    id: input.id,
    studioId: input.studioId,
    memberId: input.memberId,
    bikeId: input.bikeId ?? null,
    classId: input.classId ?? null,
    noteId: input.noteId ?? null,
    what: input.what,
    side: input.side ?? null,
    strength: input.strength,
    moment: input.moment ?? null,
    lasts: input.lasts ?? null,
    quality: input.quality ?? [],
    health: input.health ?? [],
    line: input.line ?? '',
    toldBy: input.toldBy,
  }
  return insertOnce(
    () => db.insert(complaint).values(sealRow(complaint, input.studioId, { ...content, ...written })),
    async () => {
      const [found] = await db
        .select({ ...columns, studioId: complaint.studioId })
        .from(complaint)
        .where(eq(complaint.id, input.id))
      if (!found) return undefined
      const { handedAt: _a, handedTo: _t, closedAt: _c, createdAt: _at, ...same } = found
      return same
    },
    content,
  )
}

/**
 * The complaint with this id; creates it where the id is that of a note from the floor. Null where the studio has
 * neither.
 */
export async function complaintFromNote(
  db: DbExecutor,
  scope: Scope,
  { memberId, id }: Readonly<{ memberId: string; id: string }>,
  now: Date,
): Promise<RiderComplaint | null> {
  const find = async () =>
    (
      await db
        .select(columns)
        .from(complaint)
        .where(and(eq(complaint.id, id), eq(complaint.memberId, memberId), eq(complaint.studioId, scope.studioId)))
    ).at(0)
  const stored = await find()
  if (stored) return stored
  const felt = (await feltAsComplaints(db, scope, [memberId], now)).find((one) => one.id === id)
  if (!felt) return null
  await addComplaint(db, scope, felt, felt.createdAt)
  return (await find()) ?? null
}

/** Records a referral and its recipient. A complaint referred before, or another studio's, does not change. */
export async function recordReferral(
  db: DbExecutor,
  scope: Scope,
  id: string,
  handedTo: string,
  now: Date,
): Promise<void> {
  await db
    .update(complaint)
    .set(sealRow(complaint, scope.studioId, { handedAt: now, handedBy: scope.userId, handedTo }))
    .where(and(eq(complaint.id, id), eq(complaint.studioId, scope.studioId), isNull(complaint.handedAt)))
}

/** Closes a complaint. One closed before, or another studio's, does not change. */
export async function closeComplaint(db: DbExecutor, scope: Scope, id: string, now: Date): Promise<void> {
  await db
    .update(complaint)
    .set({ closedAt: now, closedBy: scope.userId })
    .where(and(eq(complaint.id, id), eq(complaint.studioId, scope.studioId), isNull(complaint.closedAt)))
}

/** Sets the side of a complaint without one; a complaint with a side, or of another studio, does not change. */
export async function recordSide(
  db: DbExecutor,
  scope: Scope,
  { memberId, id }: Readonly<{ memberId: string; id: string }>,
  side: 'left' | 'right' | 'both',
): Promise<void> {
  await db
    .update(complaint)
    .set({ side })
    .where(
      and(
        eq(complaint.id, id),
        eq(complaint.memberId, memberId),
        eq(complaint.studioId, scope.studioId),
        isNull(complaint.side),
      ),
    )
}

/** Takes back that a complaint is over; another studio's or another member's stays as it is. */
export async function reopen(
  db: DbExecutor,
  scope: Scope,
  { memberId, id }: Readonly<{ memberId: string; id: string }>,
): Promise<void> {
  await db
    .update(complaint)
    .set({ closedAt: null, closedBy: null })
    .where(and(eq(complaint.id, id), eq(complaint.memberId, memberId), eq(complaint.studioId, scope.studioId)))
}

/** A complaint as `explain` takes it. */
export const asComplaint = ({ what, side, strength, moment, lasts, quality }: RiderComplaint): Complaint => ({
  what,
  strength,
  ...(side && { side }),
  ...(moment && { when: moment }),
  ...(lasts !== null && { lasts }),
  ...(quality.length > 0 && { quality: [...quality] }),
})

/** Whether a complaint is one to send on rather than to answer on the bike. */
export const isReferred = (one: RiderComplaint): boolean =>
  redFlagsOf(asComplaint(one), { health: one.health }).length > 0
