import type { ComplaintName } from '../../../core/comfort/model/causeTable'
import { FELT, RED_FLAG } from '../../../core/classes/watch/comfort'
import { NEVER_OF_THE_BIKE } from '../../../core/comfort/model/redFlags'
import { cueResponse, type CueResponse } from '../../../core/comfort/programme/cueResponse'
import {
  exercisesFor,
  progressOf,
  type ExerciseProgress,
  type ProgrammeSubject,
} from '../../../core/comfort/programme/programme'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import type { Note } from '../../classes/notes'
import { openComplaints } from '../../comfort/complaints'
import { listProgrammes, type StoredProgramme } from '../../comfort/programmes'

/** A programme with what was ticked of it, and how the cue for its sign holds since; null for a complaint. */
export type ProgrammeRecord = StoredProgramme &
  Readonly<{ progress: readonly ExerciseProgress[]; response: CueResponse | null }>

/** What a rider was given, the latest first, and what more could be given exercises for. */
export type RiderProgrammes = Readonly<{ given: readonly ProgrammeRecord[]; subjects: readonly ProgrammeSubject[] }>

/** More to choose from nobody reads. */
const MAX_SUBJECTS = 8

/** Programmes of a rider, given the notes made of them in class, the latest first. */
export async function riderProgrammes(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  notes: readonly Note[],
  now: Date,
): Promise<RiderProgrammes> {
  const stored = await listProgrammes(db, scope, memberId, now)
  const complaints = await openComplaints(db, scope, [memberId])
  return {
    given: stored.map((one) => ({
      ...one,
      progress: progressOf(one.programme, one.ticks),
      response: responseOf(one, notes),
    })),
    subjects: subjectsOf(
      notes,
      complaints.map(({ what }) => what),
    ),
  }
}

function responseOf({ programme: { about }, createdAt }: StoredProgramme, notes: readonly Note[]): CueResponse | null {
  if (!('sign' in about)) return null
  const looks = notes.flatMap(({ sign, cued, classId, createdAt: at, held }) =>
    sign === about.sign && cued && classId !== null ? { classId, at, held } : [],
  )
  return cueResponse(looks, createdAt)
}

/** Signs noted and complaints open that exercises are known for, the latest first. */
function subjectsOf(notes: readonly Note[], complaints: readonly ComplaintName[]): ProgrammeSubject[] {
  const never: readonly string[] = NEVER_OF_THE_BIKE
  const felt = [...new Set(complaints)].filter((what) => !never.includes(what)).map((complaint) => ({ complaint }))
  const signs = [...new Set(notes.map(({ sign }) => sign))]
    .filter((sign) => sign !== FELT && sign !== RED_FLAG)
    .map((sign) => ({ sign }))
  return [...felt, ...signs].filter((about) => exercisesFor(about).length > 0).slice(0, MAX_SUBJECTS)
}
