import { and, asc, desc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import { isSaddleCheck } from '../../core/evidence/evidence'
import type { Observer } from '../../core/evidence/defineKind'
import { eyePairs, type EyePairs, type WrittenRow } from '../../core/learning/eyePairs'
import { kneeEyeError, observerFrom, plumbEyeError, type EyeError } from '../../core/learning/observerFromPairs'
import type { StudioPrior } from '../../core/learning/studioPrior'
import { isErrorResponse } from '../../core/operations/errorResponse'
import type { LearnRequest } from '../../core/operations/learn'
import type { Scope } from '../accounts/scope'
import { compute } from '../compute/pool'
import type { DbExecutor } from '../db/connection'
import { bikeType } from '../db/tables/bikes'
import { evidence, member, setup, withdrawal } from '../db/tables/riders'
import { getStudio, type Studio } from '../studio/studio'
import { validateRow } from './validateRow'

/** So many riders' latest set-ups are learned from. */
const MOST_RIDERS = 100
/** … as long as they have no more rows together than one answer of the core may cost. */
const MOST_ROWS = 1200
/** So many of the studio's latest set-ups are looked through for looks beside an instrument. */
const MOST_SETUPS = 300

/** The latest finished set-up of each rider that was checked in the saddle, on the bike it was made on. */
export async function listCheckedSetups(db: DbExecutor, scope: Scope): Promise<LearnRequest['setups']> {
  const found = await db
    .select({ id: setup.id, type: bikeType.definition, bike: setup.machineCalibration })
    .from(member)
    .innerJoin(setup, eq(setup.id, member.latestSetupId))
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(and(eq(member.studioId, scope.studioId), isNotNull(member.latestSetupId)))
    .orderBy(desc(setup.finishedAt))
    .limit(MOST_RIDERS)
  if (found.length === 0) return []
  const ids = found.map((f) => f.id)
  const rows = await standingRows(db, ids)
  let total = 0
  return found.flatMap(({ id, type, bike }) => {
    const own = rows.filter((r) => r.setupId === id && 'row' in validateRow(type, r.row)).map((r) => r.row)
    if (!own.some(isSaddleCheck) || total + own.length + 1 > MOST_ROWS) return []
    total += own.length + 1
    return [{ bikeType: type, bike, evidence: own }]
  })
}

const standingRows = (db: DbExecutor, setupIds: readonly string[]): Promise<WrittenRow[]> =>
  db
    .select({ setupId: evidence.setupId, by: evidence.createdBy, row: evidence.row })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(and(inArray(evidence.setupId, [...setupIds]), isNull(withdrawal.evidenceId)))
    .orderBy(asc(evidence.position))

type Learned = Readonly<{ of: string; answer: StudioPrior | null }>
/** What each studio's set-ups teach, worked out in a thread; nothing of it is stored. */
const learned = new Map<string, Learned>()

/**
 * What the studio's own finished set-ups teach, or null where it does not learn, or while it is being worked out: the
 * published proportions serve until then, and nobody waits.
 */
export async function learnedPrior(db: DbExecutor, scope: Scope, studio: Studio): Promise<StudioPrior | null> {
  if (!studio.learns) return null
  const [{ latest }] = await db
    .select({ latest: sql<string | null>`max(${setup.finishedAt})` })
    .from(setup)
    .where(eq(setup.studioId, scope.studioId))
  const of = JSON.stringify([latest, studio.school])
  const known = learned.get(scope.studioId)
  if (known?.of !== of) {
    learned.set(scope.studioId, { of, answer: known?.answer ?? null })
    const setups = await listCheckedSetups(db, scope)
    void compute<StudioPrior>('learn', { school: studio.school, setups })
      .then((answer) => {
        if (isErrorResponse(answer)) throw new Error(answer.error.kind)
        learned.set(scope.studioId, { of, answer })
      })
      // Too much to do just now, or a thread that ended: the next page asks again.
      .catch(() => learned.delete(scope.studioId))
  }
  return learned.get(scope.studioId)?.answer ?? null
}

export type OwnEye = Readonly<{ pairs: EyePairs; knee: EyeError; plumb: EyeError }>

/** How the eye of the person signed in strays, from their own looks beside an instrument; nobody else's is told. */
export async function ownEye(db: DbExecutor, scope: Scope): Promise<OwnEye> {
  const { school } = await getStudio(db, scope)
  const ids = await db
    .select({ id: setup.id })
    .from(setup)
    .where(eq(setup.studioId, scope.studioId))
    .orderBy(desc(setup.startedAt))
    .limit(MOST_SETUPS)
  const rows =
    ids.length === 0
      ? []
      : await standingRows(
          db,
          ids.map((s) => s.id),
        )
  const pairs = eyePairs(rows, scope.userId, school)
  return { pairs, knee: kneeEyeError(pairs.knee), plumb: plumbEyeError(pairs.plumb) }
}

/** The eye that looks, for the core; undefined before any pair is known. */
export const observerOf = ({ knee, plumb }: OwnEye): Observer | undefined =>
  knee.pairs + plumb.pairs === 0 ? undefined : observerFrom(knee, plumb)
