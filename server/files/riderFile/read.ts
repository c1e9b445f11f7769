import { createHash } from 'node:crypto'
import canonicalize from 'canonicalize'
import type { BikeType } from '../../../core/bikes/bike/bike'
import { movedAxes, type Marks } from '../../../core/base/conventions'
import type { Issue } from '../../../core/messages/words/issues'
import { isErrorResponse } from '../../../core/operations/errorResponse'
import type { TranslateResponse } from '../../../core/operations/requests/translate'
import type { Limit } from '../../../core/riders/limits/limits'
import {
  lengthsOf,
  standingOf,
  type CarriedSet,
  type RiderFile,
  type Standing,
} from '../../../core/riders/riderFile/riderFile'
import { CERTAINTIES, type Certainty, type Purpose } from '../../../core/setups/register/entry'
import type { Scope } from '../../platform/accounts/scope'
import { compute } from '../../platform/compute/pool'
import type { DbExecutor } from '../../platform/db/connection'
import { listTypes, type TypeVersion } from '../../bikes/versions'
import { findMembersByName, type Member } from '../../riders/members/members'
import { currentEntries, findEntry, type RegisterEntry } from '../../setups/register'
import { isIntact, isKnownKey, printOf } from '../../studio/studioKeys'
import { getStudio } from '../../studio/studio'
import { parseRiderFile, type NewerRiderFile } from './parse'

/** Numbers of a file on one of this studio's types. */
export type SetProposal = Readonly<{
  setId: string
  lineId: string
  type: BikeType
  purpose: Purpose
  marks: Marks
  /** As they will be recorded. */
  certainty: Certainty
  fromType: string
  measuredAt: string
  /** What the translation says. */
  sentence: string
  /** The member's numbers here; null where there are none. */
  current: Marks | null
  /** They came by this file before, or were set here in the first place. */
  isHere: boolean
}>

/** A file as read, before anything is written. */
export type ReadRiderFile = Readonly<{
  outcome: 'read'
  standing: Standing
  studio: Readonly<{ name: string; key: string | null; print: string | null }>
  rider: string
  issuedAt: string
  proposals: readonly SetProposal[]
  hasBody: boolean
  wish: RiderFile['wish'] | null
  limits: readonly Limit[]
  /** Members of this name. */
  members: readonly Member[]
}>
export type ReadResult =
  | ReadRiderFile
  | Readonly<{ outcome: 'tooLarge' | 'otherFormat' }>
  | Readonly<{ outcome: 'refused'; issues: readonly Issue[] }>

/** A file after its checks: what can be taken of it at its standing. */
export type CheckedFile = Readonly<{
  standing: Standing
  content: RiderFile | NewerRiderFile
  key: string | null
  hash: string
}>

/** Reads a file and looks at its signature. */
export async function checkFile(
  db: DbExecutor,
  scope: Scope,
  text: string,
  now: Date,
): Promise<CheckedFile | Exclude<ReadResult, ReadRiderFile>> {
  const parsed = parseRiderFile(text)
  if (parsed.outcome !== 'read' && parsed.outcome !== 'newer') return parsed
  const content = parsed.file
  const isNewer = parsed.outcome === 'newer'
  const key = 'signature' in content ? content.studio.key : null
  const facts = {
    isNewer,
    isIntact: 'signature' in content && isIntact(content),
    isKnown: key !== null && (await isKnownKey(db, scope, key)),
    issuedAt: new Date(content.issuedAt),
    now,
  }
  const hash = createHash('sha256').update(canonicalize(content)!).digest('hex')
  return { standing: standingOf(facts), content, key, hash }
}

/** Reads a rider's own file against this studio, and against a member where one is named. Nothing is written. */
export async function readRiderFile(
  db: DbExecutor,
  scope: Scope,
  { text, memberId }: Readonly<{ text: string; memberId: string | null }>,
  now: Date,
): Promise<ReadResult> {
  const checked = await checkFile(db, scope, text, now)
  if ('outcome' in checked) return checked
  const { standing, content, key } = checked
  const isMeasured = standing.standing === 'measured'
  const full = 'signature' in content && isMeasured ? content : null
  return {
    outcome: 'read',
    standing,
    studio: { name: content.studio.name, key, print: key && printOf(key) },
    rider: content.rider.name,
    issuedAt: content.issuedAt,
    proposals: await proposalsOf(db, scope, checked, memberId),
    hasBody: full?.body !== undefined,
    wish: full?.wish ?? null,
    limits: full?.limits ?? [],
    members: await findMembersByName(db, scope, content.rider.name),
  }
}

/** Numbers of a file on every type of the studio, for each purpose those that are surest, then latest. */
export async function proposalsOf(
  db: DbExecutor,
  scope: Scope,
  { content, standing }: CheckedFile,
  memberId: string | null,
): Promise<SetProposal[]> {
  const types = await listTypes(db, scope)
  const { school } = await getStudio(db, scope)
  const entries = memberId ? await currentEntries(db, scope, [memberId]) : []
  const best = new Map<Purpose, CarriedSet>()
  for (const set of content.sets) if (isSurer(set, best.get(set.purpose))) best.set(set.purpose, set)
  const proposals: SetProposal[] = []
  for (const set of best.values())
    for (const version of types) {
      const current = entries.find(({ lineId, purpose }) => lineId === version.lineId && purpose === set.purpose)
      const found = await translated(set, version, school)
      if (!found) continue
      proposals.push({
        setId: set.id,
        lineId: version.lineId,
        type: version.bikeType,
        purpose: set.purpose,
        marks: found.marks,
        certainty: standing.standing === 'measured' && set.certainty !== 'told' ? 'translated' : 'told',
        fromType: set.type,
        measuredAt: set.at,
        sentence: found.sentence,
        current: current?.marks ?? null,
        isHere: await isHere(db, scope, set, version.lineId, current),
      })
    }
  return proposals
}

const isSurer = (set: CarriedSet, before: CarriedSet | undefined): boolean =>
  !before ||
  CERTAINTIES.indexOf(set.certainty) > CERTAINTIES.indexOf(before.certainty) ||
  (set.certainty === before.certainty && set.at > before.at)

/** Whether a set came by a file before, or was set on this type here. */
async function isHere(
  db: DbExecutor,
  scope: Scope,
  set: CarriedSet,
  lineId: string,
  current: RegisterEntry | undefined,
): Promise<boolean> {
  if (current?.basis.carried?.setId === set.id) return true
  const own = await findEntry(db, scope, set.id)
  return own?.lineId === lineId && current !== undefined && movedAxes(own.marks, current.marks).length === 0
}

async function translated(
  set: CarriedSet,
  { bikeType }: TypeVersion,
  school: object,
): Promise<TranslateResponse | null> {
  const { crankMm, noseAheadMm, pedalSurfaceMm } = set
  const from = { lengths: lengthsOf(set), crankMm, noseAheadMm, pedalSurfaceMm }
  const answer = await compute<TranslateResponse>('translate', { from, to: { bikeType }, school })
  return isErrorResponse(answer) ? null : answer
}
