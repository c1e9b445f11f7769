import { and, between, eq, isNotNull, isNull } from 'drizzle-orm'
import type { Cause, ComplaintName } from '../../../core/comfort/model/causeTable'
import { COMPLAINT_OF_FELT } from '../../../core/comfort/model/complaint'
import {
  complaintsByType,
  oneSidedBikes,
  significantCues,
  type ComplaintShare,
  type OneSidedBike,
  type RideRecord,
  type SignificantCue,
} from '../../../core/comfort/studioPicture'
import type { TrialOutcome } from '../../../core/comfort/changes/trial'
import { FELT, feltNamed } from '../../../core/classes/watch/comfort'
import type { Scope } from '../../platform/accounts/scope'
import { listBikesOfRecords } from '../../bikes/bikes'
import type { DbExecutor } from '../../platform/db/connection'
import { complaint, trial } from '../../comfort/tables'
import { studioClass } from '../../classes/rooms/tables'
import { bikeAssignment, classNote } from '../../classes/tables'

/** What a studio's complaints, cues and trials show together. */
export type StudioPicture = Readonly<{
  since: Date
  rides: number
  riders: number
  complaints: readonly ComplaintShare[]
  bikes: readonly (OneSidedBike & Readonly<{ number: number }>)[]
  cues: readonly SignificantCue[]
  cueLooks: number
  trials: readonly Readonly<{ cause: Cause; ended: Readonly<Record<TrialOutcome, number>>; running: number }>[]
}>

const WEEK_MS = 7 * 86_400_000
/** So many weeks are looked back on. */
export const PICTURE_WEEKS = 20
/** A complaint belongs to the ride before it if that ended within this time, ms. */
const AFTERWARDS_MS = 3 * 86_400_000

export async function studioPicture(db: DbExecutor, scope: Scope, now: Date): Promise<StudioPicture> {
  const since = new Date(now.getTime() - PICTURE_WEEKS * WEEK_MS)
  const [bikes, seats, notes, complaints, trials] = [
    await listBikesOfRecords(db, scope),
    await seatsSince(db, scope, since, now),
    await notesSince(db, scope, since, now),
    await complaintsSince(db, scope, since, now),
    await trialsSince(db, scope, since, now),
  ]
  const typeOf = new Map(bikes.map(({ id, type }) => [id, type.name]))
  const felt: Felt[] = [
    ...notes.flatMap(({ memberId, bikeId, classId, sign, region, side, score }): Felt[] => {
      const place = sign === FELT && (score ?? 0) > 0 ? feltNamed(region) : undefined
      return place ? [{ memberId, bikeId, classId, what: COMPLAINT_OF_FELT[place.region], side }] : []
    }),
    ...complaints.flatMap((one): Felt[] => {
      const ride = one.classId
        ? seats.find(({ memberId, classId }) => memberId === one.memberId && classId === one.classId)
        : seats.findLast(
            ({ memberId, at }) =>
              memberId === one.memberId && at <= one.at && one.at.getTime() - at.getTime() < AFTERWARDS_MS,
          )
      const bikeId = one.bikeId ?? ride?.bikeId
      return bikeId ? [{ ...one, bikeId, classId: ride?.classId ?? null }] : []
    }),
  ]
  const sideOf = new Map<string, 'left' | 'right'>()
  for (const { memberId, bikeId, classId, side } of felt)
    if (side === 'left' || side === 'right') sideOf.set(`${memberId} ${bikeId} ${classId}`, side)
  const rides = seats.map(({ memberId, bikeId, classId }): RideRecord => ({
    memberId,
    bikeId,
    oneSided: sideOf.get(`${memberId} ${bikeId} ${classId}`) ?? null,
  }))
  const cues = notes.flatMap(({ memberId, sign, cued, held }) =>
    cued && held !== null ? [{ memberId, sign, held }] : [],
  )
  // Nobody looks along the saddle of a bike that is retired.
  const inUse = bikes.filter(({ retiredAt }) => retiredAt === null)
  const numberOf = new Map(inUse.map(({ id, number }) => [id, number]))
  return {
    since,
    rides: seats.length,
    riders: new Set(seats.map(({ memberId }) => memberId)).size,
    complaints: complaintsByType(
      seats.map(({ memberId, bikeId }) => ({ memberId, type: typeOf.get(bikeId) ?? '' })),
      felt.map(({ memberId, bikeId, what }) => ({ memberId, type: typeOf.get(bikeId) ?? '', what })),
    ),
    bikes: oneSidedBikes(rides).flatMap((one) => {
      const number = numberOf.get(one.bikeId)
      return number === undefined ? [] : [{ ...one, number }]
    }),
    cues: significantCues(cues),
    cueLooks: cues.length,
    trials: [...new Set(trials.map(({ cause }) => cause))].map((cause) => {
      const own = trials.filter((one) => one.cause === cause)
      const ended = (outcome: TrialOutcome) => own.filter((one) => one.outcome === outcome).length
      return {
        cause,
        ended: { keep: ended('keep'), undo: ended('undo'), next: ended('next') },
        running: own.filter(({ outcome }) => outcome === null).length,
      }
    }),
  }
}

type Felt = Readonly<{
  memberId: string
  bikeId: string
  classId: string | null
  what: ComplaintName
  side: 'left' | 'right' | 'both' | null
}>

const seatsSince = (db: DbExecutor, scope: Scope, since: Date, now: Date) =>
  db
    .select({
      memberId: bikeAssignment.memberId,
      bikeId: bikeAssignment.bikeId,
      classId: bikeAssignment.classId,
      at: studioClass.startsAt,
    })
    .from(studioClass)
    .innerJoin(bikeAssignment, eq(bikeAssignment.classId, studioClass.id))
    .where(
      and(
        eq(studioClass.studioId, scope.studioId),
        between(studioClass.startsAt, since, now),
        isNull(studioClass.cancelledAt),
      ),
    )
    .orderBy(studioClass.startsAt)

const notesSince = (db: DbExecutor, scope: Scope, since: Date, now: Date) =>
  db
    .select({
      memberId: classNote.memberId,
      bikeId: classNote.bikeId,
      classId: classNote.classId,
      sign: classNote.sign,
      region: classNote.region,
      side: classNote.side,
      score: classNote.score,
      cued: classNote.cued,
      held: classNote.held,
    })
    .from(classNote)
    .where(
      and(
        eq(classNote.studioId, scope.studioId),
        between(classNote.createdAt, since, now),
        isNotNull(classNote.classId),
        isNull(classNote.withdrawnAt),
      ),
    )
    .orderBy(classNote.createdAt)

/** What was taken up from a note is among the notes already. */
const complaintsSince = (db: DbExecutor, scope: Scope, since: Date, now: Date) =>
  db
    .select({
      memberId: complaint.memberId,
      bikeId: complaint.bikeId,
      classId: complaint.classId,
      what: complaint.what,
      side: complaint.side,
      at: complaint.createdAt,
    })
    .from(complaint)
    .where(
      and(eq(complaint.studioId, scope.studioId), between(complaint.createdAt, since, now), isNull(complaint.noteId)),
    )

const trialsSince = (db: DbExecutor, scope: Scope, since: Date, now: Date) =>
  db
    .select({ cause: trial.cause, outcome: trial.outcome })
    .from(trial)
    .where(and(eq(trial.studioId, scope.studioId), between(trial.startedAt, since, now)))
