import { and, asc, desc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import { isSaddleCheck } from '../../core/riders/evidence/evidence'
import type { Observer } from '../../core/riders/evidence/definition/defineKind'
import { eyePairs, type EyePairs, type WrittenRow } from '../../core/setups/learning/eyePairs'
import { kneeEyeError, observerFrom, plumbEyeError, type EyeError } from '../../core/setups/learning/observerFromPairs'
import type { StudioPrior } from '../../core/setups/learning/studioPrior'
import type { SuggestionRecord } from '../../core/setups/learning/firstSuggestions'
import type { LearnRequest } from '../../core/operations/requests/learn'
import type { SuggestionsRequest } from '../../core/operations/requests/suggestions'
import type { Scope } from '../platform/accounts/scope'
import { staleWhileRevalidate } from '../platform/compute/staleWhileRevalidate'
import type { DbExecutor } from '../platform/db/connection'
import { bikeType } from '../bikes/tables'
import { member } from '../riders/tables'
import { evidence, setup, withdrawal } from './tables'
import { getStudio, type Studio } from '../studio/studio'
import { HISTORY_ROWS } from './setups'
import { validateRow } from './validateRow'

/** So many riders' latest set-ups are learned from. */
const MAX_RIDERS = 100
/** … as long as they have no more rows together than one answer of the core may cost. */
const MAX_ROWS = 1200
/** So many of the studio's latest set-ups are looked through for looks beside an instrument. */
const MAX_SETUPS = 300

/** The latest finished set-up of each rider that was checked in the saddle, on the bike it was made on. */
export async function listCheckedSetups(db: DbExecutor, scope: Scope): Promise<LearnRequest['setups']> {
  const found = await db
    .select({ id: setup.id, type: bikeType.definition, bike: setup.machineCalibration })
    .from(member)
    .innerJoin(setup, eq(setup.id, member.latestSetupId))
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(and(eq(member.studioId, scope.studioId), isNotNull(member.latestSetupId)))
    .orderBy(desc(setup.finishedAt))
    .limit(MAX_RIDERS)
  if (found.length === 0) return []
  const ids = found.map((f) => f.id)
  const rows = await standingRows(db, scope, ids)
  let total = 0
  return found.flatMap(({ id, type, bike }) => {
    const own = rows
      .filter((r) => r.setupId === id && 'row' in validateRow(type, r.row))
      .map((r) => r.row)
      .slice(-HISTORY_ROWS)
    if (!own.some(isSaddleCheck) || total + own.length + 1 > MAX_ROWS) return []
    total += own.length + 1
    return [{ bikeType: type, bike, evidence: own }]
  })
}

/** The rows of these set-ups that nobody took back, in order, with who wrote each. */
export const standingRows = (db: DbExecutor, scope: Scope, setupIds: readonly string[]): Promise<WrittenRow[]> =>
  db
    .select({ setupId: evidence.setupId, by: evidence.createdBy, row: evidence.row })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(
      and(
        inArray(evidence.setupId, [...setupIds]),
        eq(evidence.studioId, scope.studioId),
        isNull(withdrawal.evidenceId),
      ),
    )
    .orderBy(asc(evidence.position))

const studioPriors = staleWhileRevalidate<StudioPrior>('learn')
const records = staleWhileRevalidate<SuggestionRecord>('suggestions')

/**
 * What the studio's own finished set-ups teach, or null where it does not learn, or while it is being worked out: the
 * published proportions serve until then, and nobody waits.
 */
export async function learnedPrior(db: DbExecutor, scope: Scope, studio: Studio): Promise<StudioPrior | null> {
  if (!studio.learns) return null
  const of = JSON.stringify([await latestSaved(db, scope), studio.school])
  return studioPriors(scope.studioId, of, async () => ({
    school: studio.school,
    setups: await listCheckedSetups(db, scope),
  }))
}

/**
 * Whether the first saddles suggested in the studio's latest set-ups were right as often as predicted, by the prior it
 * goes by today; null while it is being worked out.
 */
export async function suggestionRecordOf(
  db: DbExecutor,
  scope: Scope,
  { school }: Studio,
  learned: StudioPrior | null,
): Promise<SuggestionRecord | null> {
  const of = JSON.stringify([await latestSaved(db, scope), school, learned?.prior])
  return records(scope.studioId, of, async () => ({
    school,
    ...(learned && { prior: learned.prior }),
    setups: await listRecentSetups(db, scope),
  }))
}

/** When the studio's latest set-up was saved: results computed from them are valid until the next. */
export async function latestSaved(db: DbExecutor, scope: Scope): Promise<string | null> {
  const [{ latest }] = await db
    .select({ latest: sql<string | null>`max(${setup.finishedAt})` })
    .from(setup)
    .where(eq(setup.studioId, scope.studioId))
  return latest
}

/** So many first suggestions are looked back on. */
const RECENT_SETUPS = 50
/** Earlier set-ups of each of those riders at that time. */
const EARLIER_SETUPS = 2
/** A rider's set-ups looked through for these; a rider with more recent set-ups has a shorter history. */
const MAX_OF_THEIRS = 600

/** The latest finished set-ups that were checked in the saddle, each with the rider's earlier set-ups. */
export async function listRecentSetups(db: DbExecutor, scope: Scope): Promise<SuggestionsRequest['setups']> {
  const columns = {
    id: setup.id,
    memberId: setup.memberId,
    type: bikeType.definition,
    bike: setup.machineCalibration,
    finishedAt: setup.finishedAt,
  }
  const recent = await db
    .select(columns)
    .from(setup)
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(and(eq(setup.studioId, scope.studioId), isNotNull(setup.finishedAt)))
    .orderBy(desc(setup.finishedAt))
    .limit(RECENT_SETUPS)
  if (recent.length === 0) return []
  const members = [...new Set(recent.map((s) => s.memberId))]
  const theirs = await db
    .select(columns)
    .from(setup)
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(and(inArray(setup.memberId, members), isNotNull(setup.finishedAt)))
    .orderBy(desc(setup.finishedAt))
    .limit(MAX_OF_THEIRS)
  const before = (one: (typeof recent)[number]) =>
    theirs.filter((s) => s.memberId === one.memberId && s.finishedAt! < one.finishedAt!).slice(0, EARLIER_SETUPS)
  const rows = await standingRows(db, scope, [...new Set([...recent, ...recent.flatMap(before)].map((s) => s.id))])
  const asSeen = ({ id, type, bike }: (typeof recent)[number]) => ({
    bikeType: type,
    bike,
    evidence: rows
      .filter((r) => r.setupId === id && 'row' in validateRow(type, r.row))
      .map((r) => r.row)
      .slice(-HISTORY_ROWS),
  })
  let total = 0
  return recent.flatMap((one) => {
    const history = before(one).map((s) => ({
      ...asSeen(s),
      agoDays: (one.finishedAt!.getTime() - s.finishedAt!.getTime()) / DAY_MS,
    }))
    const found = { ...asSeen(one), history }
    const rowsOf = found.evidence.length + 2 * history.reduce((sum, h) => sum + h.evidence.length, 0)
    if (!found.evidence.some(isSaddleCheck) || total + rowsOf > MAX_RECENT_ROWS) return []
    total += rowsOf
    return [found]
  })
}
const DAY_MS = 86_400_000
/** Together they have no more rows than one answer of the core may cost. */
const MAX_RECENT_ROWS = 800

export type OwnEye = Readonly<{ pairs: EyePairs; knee: EyeError; plumb: EyeError }>

/** Error of the signed-in user's eye, from their own looks beside an instrument; never another user's. */
export async function observerErrorOf(db: DbExecutor, scope: Scope): Promise<OwnEye> {
  const { school } = await getStudio(db, scope)
  const ids = await db
    .select({ id: setup.id })
    .from(setup)
    .where(eq(setup.studioId, scope.studioId))
    .orderBy(desc(setup.startedAt))
    .limit(MAX_SETUPS)
  const rows =
    ids.length === 0
      ? []
      : await standingRows(
          db,
          scope,
          ids.map((s) => s.id),
        )
  const pairs = eyePairs(rows, scope.userId, school)
  return { pairs, knee: kneeEyeError(pairs.knee), plumb: plumbEyeError(pairs.plumb) }
}

/** The observer, for the core; undefined before any pair. */
export const observerOf = ({ knee, plumb }: OwnEye): Observer | undefined =>
  knee.pairs + plumb.pairs === 0 ? undefined : observerFrom(knee, plumb)
