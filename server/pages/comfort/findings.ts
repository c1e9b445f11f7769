import { isSaddleStraight } from '../../../core/bikes/bike/tilt'
import {
  barsFinding,
  bikeChange,
  changesOf,
  findingOfNote,
  findingsOfSetup,
  viewFinding,
} from '../../../core/comfort/findings/findingsFrom'
import type { Health } from '../../../core/comfort/model/complaint'
import type { Finding } from '../../../core/comfort/model/request'
import { isPregnant, latestAnswer } from '../../../core/riders/evidence/standingAnswers'
import type { School } from '../../../core/base/school/school'
import { handTiltDeg } from '../../../core/bikes/bike/standing'
import { saddleOn } from '../../../core/bikes/saddles/saddle'
import type { Scope } from '../../platform/accounts/scope'
import { listBikeReadings } from '../../bikes/bikeReadings'
import { findBike, type StudioBike } from '../../bikes/bikes'
import { listNotesOfMembers } from '../../classes/notes'
import type { DbExecutor } from '../../platform/db/connection'
import { effectsOfLimits } from '../../riders/limits'
import { listHomeMeasures } from '../../riders/memberPage/messages'
import { currentEntries, listEntries, byDisplayPriority, type RegisterEntry } from '../../setups/register'
import { findRoom, listPlaces } from '../../classes/rooms/rooms'
import { listFinishedSetups } from '../../setups/setups'
import { listRides, type Ride } from '../../comfort/rides'

/** What is on file of a rider, as `explain` takes it, and what it was read on. */
export type RiderRecord = Readonly<{
  findings: readonly Finding[]
  /** The bike that is spoken of: the complaint's, or the one ridden last; null for somebody who never rode. */
  bike: StudioBike | null
  /** The numbers in force on its type; null where there are none. */
  entry: RegisterEntry | null
  experience: 'new' | 'regular' | 'experienced' | undefined
  /** What the rider answered last of their health, in a set-up or at home, as far as it stops advice. */
  health: readonly Health[]
  /** A nose off the frame's line, as measured last on this machine, mm and when; null where it lies on it. */
  saddleLine: Readonly<{ mm: number; at: Date }> | null
  rides: readonly Ride[]
}>

const DAY_MS = 86_400_000
/** Set-ups, entries and notes that are looked at. */
const SETUPS = 4
const ENTRIES = 40
const NOTES_MS = 120 * DAY_MS
/** The wire takes so many findings; the youngest count. */
const MAX_NOTES = 120

/** Everything on file that may speak for or against a cause: checks, notes, the machine, the room, what was changed. */
export async function findingsOnFile(
  db: DbExecutor,
  scope: Scope,
  { memberId, bikeId }: Readonly<{ memberId: string; bikeId: string | null }>,
  school: School,
  now: Date,
): Promise<RiderRecord> {
  const ago = (at: Date): number => Math.max(0, (now.getTime() - at.getTime()) / DAY_MS)
  const [rides, current, entries, setups, notes] = [
    await listRides(db, scope, memberId, now),
    byDisplayPriority(await currentEntries(db, scope, [memberId])),
    await listEntries(db, scope, memberId, { limit: ENTRIES }),
    await listFinishedSetups(db, scope, memberId, SETUPS),
    await listNotesOfMembers(db, scope, [memberId], new Date(now.getTime() - NOTES_MS)),
  ]
  const spokenOf = bikeId ?? rides.at(0)?.bikeId ?? current.at(0)?.bikeId ?? null
  const bike = spokenOf ? await findBike(db, scope, spokenOf) : null
  const lineId = bike?.lineId ?? current.at(0)?.lineId
  const entry = current.find((one) => one.lineId === lineId) ?? null
  // What was read in a set-up is as old as the numbers it ended with.
  const endedAt = (setupId: string, finishedAt: Date) =>
    entries.find((one) => one.setupId === setupId)?.createdAt ?? finishedAt
  const line = bike ? await lastSaddleLine(db, scope, bike.id) : null
  const findings: (Finding | null)[] = [
    ...setups.flatMap(({ id, evidence, marks, finishedAt, lineId: ofLine }) =>
      findingsOfSetup({ evidence, marks, daysAgo: ago(endedAt(id, finishedAt)), otherType: ofLine !== lineId }, school),
    ),
    ...notes
      .slice(0, MAX_NOTES)
      .map(({ sign, side, held, createdAt }) => findingOfNote({ sign, side, held, daysAgo: ago(createdAt) })),
    ...changesOf(
      entries.map(({ lineId: line, purpose, marks, footwear, basis, createdAt }) => ({
        set: `${line}/${purpose}`,
        marks,
        footwear,
        basis,
        daysAgo: ago(createdAt),
      })),
    ),
    bikeChange(rides.map((ride) => ({ lineId: ride.lineId, daysAgo: ago(ride.at) }))),
    // With the offsets of the machine they were set on; other machines take other marks for the same place.
    entry ? barsFinding(entry.type, entry.machineCalibration ?? undefined, entry.marks) : null,
    ...(bike ? await findingsOfMachine(db, scope, bike) : []),
  ]
  const limits = (await effectsOfLimits(db, scope, [memberId], now)).get(memberId)
  const answers = [
    ...setups.map(({ evidence, finishedAt }) => ({ evidence, agoDays: ago(finishedAt) })),
    ...(await listHomeMeasures(db, scope, memberId)).map(({ measures, at }) => ({
      evidence: measures.evidence,
      agoDays: ago(at),
    })),
  ]
  return {
    findings: findings.filter((one) => one !== null),
    bike,
    entry,
    experience: latestAnswer(answers, 'rider')?.row.experience,
    health: [...new Set<Health>([...(isPregnant(answers) ? (['pregnant'] as const) : []), ...(limits?.health ?? [])])],
    saddleLine: line && !isSaddleStraight(line.mm) ? line : null,
    rides,
  }

  async function findingsOfMachine(exec: DbExecutor, who: Scope, { id, machineCalibration, type }: StudioBike) {
    const place = (await listPlaces(exec, who)).find((one) => one.bikeId === id)
    const room = place ? await findRoom(exec, who, place.roomId) : null
    const { tiltDeg, tiltAcross } = machineCalibration
    return [
      tiltDeg === undefined
        ? null
        : ({
            kind: 'tilt',
            // What the rider's own numbers tip it by, where the type lets the hand do that.
            deg: tiltDeg + (entry && type.axes.saddleTilt ? handTiltDeg(type, entry.marks) : 0),
            shape: saddleOn(type, machineCalibration).shape,
            ...(tiltAcross && { across: tiltAcross }),
          } as const),
      line && ({ kind: 'saddleLine', mm: line.mm, daysAgo: ago(line.at) } as const),
      place && room ? viewFinding(place, room.plan, 0) : null,
    ]
  }
}

async function lastSaddleLine(db: DbExecutor, scope: Scope, bikeId: string): Promise<RiderRecord['saddleLine']> {
  const readings = await listBikeReadings(db, scope, bikeId)
  const last = readings.findLast(({ row }) => row.kind === 'saddleLine')
  return last?.row.kind === 'saddleLine' ? { mm: last.row.mm, at: last.createdAt } : null
}
