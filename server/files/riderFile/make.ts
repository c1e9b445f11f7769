import { pedalSurfaceMm } from '../../../core/bikes/bike/bike'
import { axisPositions, contactPoints } from '../../../core/bikes/bike/contactPoints'
import { crankMmAt } from '../../../core/bikes/bike/standing'
import type { Point } from '../../../core/base/conventions'
import { isErrorResponse } from '../../../core/operations/errorResponse'
import type { BodyResponse } from '../../../core/operations/requests/body'
import { latest } from '../../../core/riders/evidence/evidence'
import {
  MAX_SETS,
  RIDER_FILE_FORMAT,
  RIDER_FILE_VERSION,
  type CarriedSet,
  type RiderFile,
} from '../../../core/riders/riderFile/riderFile'
import type { EarlierSetup } from '../../../core/setups/recommend/history/riderHistory'
import type { Scope } from '../../platform/accounts/scope'
import { compute } from '../../platform/compute/pool'
import type { DbExecutor } from '../../platform/db/connection'
import { listLimits, type StoredLimit } from '../../riders/limits'
import { findMember } from '../../riders/members/members'
import { carriedBodyOf, carriedWishOf, listRiderFiles, type StoredRiderFile } from '../../setups/carriedBodies'
import { learnedPrior } from '../../setups/learned'
import { currentEntries, type RegisterEntry } from '../../setups/register'
import { listHistory } from '../../setups/setups'
import { signRiderFile } from '../../studio/studioKeys'
import { getStudio } from '../../studio/studio'

/** What a rider chooses to take beside the numbers; limits by their ids. */
export type FileChoice = Readonly<{ body: boolean; wish: boolean; limits: readonly string[] }>

/** What a rider could take. */
export type FileContents = Readonly<{
  sets: number
  hasBody: boolean
  wish: RiderFile['wish'] | null
  limits: readonly StoredLimit[]
}>

/** Nobody waits longer for what is believed of their body. */
const PATIENCE_MS = 15_000

/** What a member could take along; null where the studio has no such member. */
export async function riderFileContents(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  now: Date,
): Promise<FileContents | null> {
  if (!(await findMember(db, scope, memberId))) return null
  const history = await listHistory(db, scope, memberId, now)
  return {
    sets: Math.min(MAX_SETS, (await currentEntries(db, scope, [memberId])).length),
    hasBody: history.length > 0 || (await carriedBodyOf(db, scope, memberId, now)) !== undefined,
    wish: await wishOf(db, scope, memberId, history, now),
    limits: await listLimits(db, scope, [memberId]),
  }
}

/**
 * A member's own file, signed by the studio: numbers as contact points, and what they chose beside. Null where the
 * studio has no such member; `busy` where what is believed of the body could not be computed in time.
 */
export async function makeRiderFile(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  choice: FileChoice,
  now: Date,
): Promise<RiderFile | 'busy' | null> {
  const member = await findMember(db, scope, memberId)
  if (!member) return null
  const studio = await getStudio(db, scope)
  const entries = (await currentEntries(db, scope, [memberId])).slice(0, MAX_SETS)
  const brought = await listRiderFiles(db, scope, memberId, now)
  const limits = (await listLimits(db, scope, [memberId])).filter(({ id }) => choice.limits.includes(id))
  const wish = choice.wish ? await wishOf(db, scope, memberId, await listHistory(db, scope, memberId, now), now) : null
  const body = choice.body ? await bodyOf(db, scope, memberId, now) : null
  if (body === 'busy') return 'busy'
  return signRiderFile(
    db,
    scope,
    {
      format: RIDER_FILE_FORMAT,
      formatVersion: RIDER_FILE_VERSION,
      issuedAt: now.toISOString(),
      studio: { name: studio.name },
      rider: { name: member.name },
      sets: distinct(entries.map((entry) => broughtAs(entry, brought) ?? carriedSet(entry))),
      ...(body && { body }),
      ...(limits.length > 0 && { limits: limits.map(({ limit }) => limit) }),
      ...(wish && { wish }),
    },
    now,
  )
}

async function wishOf(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  history: readonly EarlierSetup[],
  now: Date,
): Promise<RiderFile['wish'] | null> {
  for (const { evidence } of history) {
    const wish = latest(evidence, 'wish')
    if (wish) return wish.posture
  }
  const carried = await carriedWishOf(db, scope, memberId, now)
  return carried?.kind === 'wish' ? carried.posture : null
}

async function bodyOf(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  now: Date,
): Promise<RiderFile['body'] | 'busy' | null> {
  const history = await listHistory(db, scope, memberId, now)
  const body = await carriedBodyOf(db, scope, memberId, now)
  if (history.length === 0 && !body) return null
  const studio = await getStudio(db, scope)
  const prior = (await learnedPrior(db, scope, studio))?.prior
  const request = { history, ...(body && { body }), school: studio.school, ...(prior && { prior }) }
  const answer = await compute<BodyResponse>('body', request, PATIENCE_MS)
  return isErrorResponse(answer) ? 'busy' : answer.belief
}

const rounded = ({ xMm, yMm }: Point): Point => ({ xMm: Math.round(10 * xMm) / 10, yMm: Math.round(10 * yMm) / 10 })

/** Numbers as contact points on the machine they were set on. */
function carriedSet({ id, type, machineCalibration, purpose, certainty, marks, sinceAt, footwear }: RegisterEntry) {
  const { seat, nose, grip } = contactPoints(type, machineCalibration ?? {}, axisPositions(type, marks))
  return {
    id,
    type: type.name,
    purpose,
    certainty,
    at: sinceAt.toISOString(),
    marks,
    seat: rounded(seat),
    grip: rounded(grip),
    noseAheadMm: Math.round(10 * (nose.xMm - seat.xMm)) / 10,
    crankMm: crankMmAt(type, marks),
    pedalSurfaceMm: pedalSurfaceMm(type, footwear.pedal),
    ...(footwear.soleMm !== undefined && { soleMm: footwear.soleMm }),
    ...(footwear.pedal && { pedal: footwear.pedal }),
  } satisfies CarriedSet
}

/** One set brought along may stand on several types here: it goes on once. */
const distinct = (sets: readonly CarriedSet[]): CarriedSet[] => [...new Map(sets.map((set) => [set.id, set])).values()]

/**
 * Numbers that were brought along and not touched since go on as they came: nothing is rounded twice. What was only
 * told stays told: this studio's signature makes it no surer.
 */
function broughtAs({ source, basis }: RegisterEntry, brought: readonly StoredRiderFile[]): CarriedSet | null {
  if (source !== 'carried' || !basis.carried) return null
  const { setId } = basis.carried
  const [found] = brought.flatMap(({ content, isMeasured }) =>
    content.sets.filter(({ id }) => id === setId).map((set) => ({ set, isMeasured })),
  )
  if (!found) return null
  return found.isMeasured ? found.set : { ...found.set, certainty: 'told' }
}
