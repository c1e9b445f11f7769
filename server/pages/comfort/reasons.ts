import type { Cause } from '../../../core/comfort/model/causeTable'
import type { Health } from '../../../core/comfort/model/complaint'
import { redFlagsOf, type RedFlagReason } from '../../../core/comfort/model/redFlags'
import type { ExplainRequest, Finding } from '../../../core/comfort/model/request'
import { explain, type ExplainResponse } from '../../../core/operations/requests/explain'
import { schoolOf } from '../../../core/base/school/school'
import { formatLimitStop } from '../../../core/messages/riders/limits'
import { widerSaddles } from '../../../core/bikes/saddles/saddle'
import { availableBikes, listBikes, type StudioBike } from '../../bikes/bikes'
import type { Scope } from '../../platform/accounts/scope'
import { currentWording, whoAgreed } from '../../riders/consent'
import { effectsOfLimits } from '../../riders/limits'
import { listFlagsOfMember, type Note } from '../../classes/notes'
import type { DbExecutor } from '../../platform/db/connection'
import { getStudio } from '../../studio/studio'
import {
  asComplaint,
  complaintsOfNotes,
  complaintsToAnswer,
  isReferred,
  type RiderComplaint,
} from '../../comfort/complaints'
import { findingsOnFile, type RiderRecord } from './findings'
import { ridersOfBike } from '../../comfort/rides'
import { listTrials, type Trial } from '../../comfort/trials'

/** A complaint as the page of reasons shows it. */
export type ShownComplaint = RiderComplaint & Readonly<{ flags: readonly RedFlagReason[]; onTrial: boolean }>

/** What is open of a rider, what is behind it, and what to do next. */
export type Reasons = Readonly<{
  complaints: readonly ShownComplaint[]
  /** Red flags tapped on the floor that nobody took up: nothing is changed while there is one. */
  flagged: readonly Note[]
  /** Whether the rider agreed to notes, and the question otherwise. */
  agrees: boolean
  wording: string
  /** Null where nothing is open, or a flag of the floor stops it. */
  answer: ExplainResponse | null
  onFile: RiderRecord
  /** Causes whose change was on trial and did not help. */
  tried: readonly Cause[]
  trials: readonly Trial[]
  /** The riders a change of this saddle's tilt touches; empty where none is proposed. */
  touched: readonly Readonly<{ id: string; name: string }>[]
  /** Bikes whose saddle is clearly wider than the one ridden, for pressure or chafing; null for none. */
  wider: Readonly<{
    ownMm: number
    bikes: readonly Readonly<{ number: number; name: string; widthMm: number }>[]
  }> | null
  referral: string | null
  /** A limit that waits for a clinician's word, in words; null for none. */
  limitStop: string | null
  timeZone: string
}>

const DAY_MS = 86_400_000
/** A red flag from the floor stays active this long, ms. */
const FLAG_MS = 42 * DAY_MS
/** Riders of so long ago are still named where a saddle is tilted, ms. */
const TOUCHED_MS = 42 * DAY_MS
/** The wire's most. */
const MAX_COMPLAINTS = 12
const MAX_FINDINGS = 200

/** Data of the page of reasons. */
export async function reasonsOf(db: DbExecutor, scope: Scope, memberId: string, now: Date): Promise<Reasons> {
  const [studio, complaints, entries, trials] = [
    await getStudio(db, scope),
    await complaintsToAnswer(db, scope, memberId, now),
    await complaintsOfNotes(db, scope, memberId),
    await listTrials(db, scope, memberId, now),
  ]
  const school = schoolOf(studio.school)
  const flagged = await flagsOfFloor(db, scope, memberId, entries, now)
  const bikeId = complaints.find((one) => one.bikeId !== null)?.bikeId ?? null
  const onFile = await findingsOnFile(db, scope, { memberId, bikeId }, school, now)
  const tried = triedCauses(complaints, trials)
  // The next step is for complaints that are not on trial; if all are, the page shows the reasons only.
  const running = trials.filter(({ endedAt }) => endedAt === null)
  // A rider's health counts for everything they feel.
  const health = [...new Set([...onFile.health, ...complaints.flatMap((one) => one.health)])]
  const shown = complaints.map((one): ShownComplaint => {
    const flags = redFlagsOf(asComplaint(one), {
      health,
      others: complaints.filter((other) => other !== one).map(asComplaint),
    })
    const runs = running.some(
      ({ complaintId, what, startedAt }) => complaintId === one.id || (what === one.what && one.createdAt >= startedAt),
    )
    // A red flag is included even during a trial.
    return { ...one, flags, onTrial: runs && flags.length === 0 }
  })
  const waiting = shown.filter(({ onTrial }) => !onTrial)
  // Beyond the limit, complaints with a red flag come first.
  const chosen = (waiting.length > 0 ? waiting : shown).toSorted((a, b) => b.flags.length - a.flags.length)
  const stopped = flagged.length > 0 || complaints.length === 0
  const answer = stopped ? null : explain(requestOf(chosen, onFile, health, studio.school), tried)
  const limit = (await effectsOfLimits(db, scope, [memberId], now)).get(memberId)?.stop ?? null
  const touched =
    answer?.change?.axis === 'tilt' && onFile.bike
      ? await ridersOfBike(db, scope, onFile.bike.id, new Date(now.getTime() - TOUCHED_MS))
      : []
  return {
    complaints: shown,
    flagged,
    answer,
    onFile,
    tried,
    trials,
    touched,
    wider: answer?.refer ? null : await widerFor(db, scope, complaints, onFile.bike),
    referral: studio.referral,
    limitStop: limit ? formatLimitStop(limit) : null,
    agrees: (await whoAgreed(db, scope, [memberId])).has(memberId),
    wording: (await currentWording(db, scope)).wording,
    timeZone: studio.timeZone,
  }
}

/** Complaints that a wider saddle may end: it is tried by taking another bike, and nothing is moved. */
const OF_THE_SADDLE: readonly string[] = ['saddlePressure', 'chafing']

async function widerFor(
  db: DbExecutor,
  scope: Scope,
  complaints: readonly RiderComplaint[],
  here: StudioBike | null,
): Promise<Reasons['wider']> {
  const ownMm = here?.machineCalibration.saddle?.widthMm
  if (ownMm === undefined || !complaints.some(({ what }) => OF_THE_SADDLE.includes(what))) return null
  const others = availableBikes(await listBikes(db, scope)).filter(({ id }) => id !== here!.id)
  const bikes = widerSaddles(here!.machineCalibration, others).map(({ bike, name, widthMm }) => ({
    number: bike.number,
    name,
    widthMm,
  }))
  return bikes.length > 0 ? { ownMm, bikes } : null
}

/** Request of `explain` for these complaints. */
function requestOf(
  complaints: readonly RiderComplaint[],
  { findings, entry, experience }: RiderRecord,
  health: Health[],
  school: ExplainRequest['school'],
): ExplainRequest {
  return {
    ...(entry && { bikeType: entry.type, marks: entry.marks }),
    ...(experience && { experience }),
    complaints: complaints.slice(0, MAX_COMPLAINTS).map(asComplaint),
    ...(health.length > 0 && { health }),
    findings: youngest(findings),
    school,
  }
}

const youngest = (findings: readonly Finding[]): Finding[] =>
  findings.toSorted((a, b) => (a.daysAgo ?? 0) - (b.daysAgo ?? 0)).slice(0, MAX_FINDINGS)

/** Causes whose trial for one of these complaints ended without help. */
function triedCauses(complaints: readonly RiderComplaint[], trials: readonly Trial[]): Cause[] {
  const ids = new Set(complaints.map(({ id }) => id))
  const failed = trials.filter(
    ({ complaintId, outcome }) => ids.has(complaintId) && (outcome === 'undo' || outcome === 'next'),
  )
  return [...new Set(failed.map(({ cause }) => cause))]
}

async function flagsOfFloor(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  stored: readonly RiderComplaint[],
  now: Date,
): Promise<Note[]> {
  const flags = await listFlagsOfMember(db, scope, memberId, new Date(now.getTime() - FLAG_MS))
  // A flag that was taken up as something without one is still a flag, also after that was settled.
  const taken = new Set(stored.filter(isReferred).map(({ noteId }) => noteId))
  return flags.filter(({ id }) => !taken.has(id))
}
