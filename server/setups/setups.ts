import { and, asc, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm'
import type { Bike, BikeType } from '../../core/bikes/bike/bike'
import { MACHINE_SD_MM } from '../../core/bikes/calibration/machineOffset'
import { unmeasuredSdMm } from '../../core/bikes/calibration/parameters'
import type { BikeEquipment } from '../../core/bikes/bike/equipment'
import type { Marks } from '../../core/base/conventions'
import type { MeantReason } from '../../core/riders/evidence/kinds/onBike/set'
import type { Evidence, EvidenceOf } from '../../core/riders/evidence/registry'
import type { EarlierSetup } from '../../core/setups/recommend/history/riderHistory'
import { standingAnswers, withPregnancy } from '../../core/riders/evidence/standingAnswers'
import type { Scope } from '../platform/accounts/scope'
import { findBike, type StudioBike } from '../bikes/bikes'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { isDuplicate } from '../platform/db/errors'
import { user } from '../platform/accounts/tables'
import { bike, bikeType } from '../bikes/tables'
import { evidence, setup, withdrawal } from './tables'
import { findMember } from '../riders/members/members'
import { listHomeMeasures } from '../riders/memberPage/messages'
import { carriedWishOf } from './carriedBodies'
import { currentEntries } from './register'
import { appendEvidence, type StoredEvidence } from './evidence'
import { validateRow } from './validateRow'

/** A set-up with the version of the type, and the machine's own offsets, that it was begun on. */
export type Setup = Readonly<{
  id: string
  memberId: string
  bikeId: string
  bikeNumber: number
  type: BikeType
  lineId: string
  equipment: BikeEquipment
  machineCalibration: Bike
  finishedAt: Date | null
}>

/** A finished set-up for the rider's page. */
export type FinishedSetup = Readonly<{
  id: string
  bikeId: string
  bikeNumber: number
  type: BikeType
  lineId: string
  machineCalibration: Bike
  marks: Marks
  /** Reason of an intentional setting, if any. */
  meant?: MeantReason
  finishedAt: Date
  finishedBy: string
  evidence: readonly Evidence[]
}>

export type StartSetupResult =
  | Readonly<{ outcome: 'kept'; id: string }>
  /** The studio has no such member or bike, or the bike is out of use. */
  | Readonly<{ outcome: 'gone' | 'outOfUse' }>

/**
 * Starts a set-up of a member on a bike, opened with what they answered lately; where one of theirs on it is open, that
 * one is taken up.
 */
export async function startSetup(db: DbExecutor, scope: Scope, input: NewSetup, now: Date): Promise<StartSetupResult> {
  const { isNew, ...opened } = await openSetup(db, scope, input, now)
  if (isNew) await carryAnswers(db, scope, input.id, now)
  return opened
}

type NewSetup = Readonly<{ id: string; memberId: string; bikeId: string }>

/** `isNew` where it was written just now: not one taken up, nor one sent once more. */
async function openSetup(
  db: DbExecutor,
  scope: Scope,
  { id, memberId, bikeId }: NewSetup,
  now: Date,
): Promise<StartSetupResult & Readonly<{ isNew?: true }>> {
  const [found, member] = [await findBike(db, scope, bikeId), await findMember(db, scope, memberId)]
  if (!found || !member) return { outcome: 'gone' }
  if (found.openFaults > 0 || found.retiredAt) return { outcome: 'outOfUse' }
  const openKey = `${memberId}/${bikeId}`
  try {
    await db.insert(setup).values({
      id,
      studioId: scope.studioId,
      memberId,
      bikeId,
      typeId: found.typeId,
      machineCalibration: await calibrationAtStart(db, found),
      startedAt: now,
      startedBy: scope.userId,
      openKey,
    })
    return { outcome: 'kept', id, isNew: true }
  } catch (error) {
    if (!isDuplicate(error)) throw error
    const [open] = await db.select({ id: setup.id }).from(setup).where(eq(setup.openKey, openKey)).for('update')
    return { outcome: 'kept', id: open?.id ?? id }
  }
}

/**
 * The calibration of the machine at the start of a set-up. A type that was never measured, on a machine without a tape
 * reading, gets the standard deviation of a guess.
 */
async function calibrationAtStart(
  db: DbExecutor,
  { typeId, type: own, machineCalibration }: StudioBike,
): Promise<Bike> {
  // A tape on the machine itself leaves less than machines of one type differ.
  if ((machineCalibration.sdMm?.seatHeight ?? MACHINE_SD_MM) < MACHINE_SD_MM) return machineCalibration
  const [type] = await db.select({ calibration: bikeType.calibration }).from(bikeType).where(eq(bikeType.id, typeId))
  return type?.calibration
    ? machineCalibration
    : { ...machineCalibration, sdMm: { ...machineCalibration.sdMm, ...unmeasuredSdMm(own) } }
}

/** Recent answers of the rider and measurements from home are copied into the new set-up. */
async function carryAnswers(db: DbExecutor, scope: Scope, id: string, now: Date): Promise<void> {
  const { memberId, type } = (await findSetup(db, scope, id))!
  const history = await listHistory(db, scope, memberId, now)
  const atHome = await listHomeMeasures(db, scope, memberId)
  const lastSetUp = history[0] ? now.getTime() - history[0].agoDays * DAY_MS : 0
  const measured = atHome.filter(({ at }) => at.getTime() > lastSetUp).at(0)?.measures.evidence ?? []
  const answers = [
    ...history,
    ...atHome.map(({ measures, at }) => ({
      evidence: measures.evidence,
      agoDays: (now.getTime() - at.getTime()) / DAY_MS,
    })),
  ]
  const measuredKinds = new Set(measured.map(({ kind }) => kind))
  const standing = [...standingAnswers(history).filter(({ kind }) => !measuredKinds.has(kind)), ...measured]
  const wish = standing.some(({ kind }) => kind === 'wish') ? null : await carriedWishOf(db, scope, memberId, now)
  if (wish) standing.push(wish)
  const rows = [...standing, ...answers.flatMap(({ evidence: rows }) => rows)]
  for (const row of [...(await listedStature(db, scope, memberId, rows)), ...standing]) {
    const carried = row.kind === 'wish' ? withExistingGrip(type, row) : withPregnancy(row, answers)
    const checked = validateRow(type, carried)
    if ('row' in checked) await appendEvidence(db, scope, id, { id: crypto.randomUUID(), row: checked.row }, now)
  }
}

/** The height a list of members gave, unless the rider gave or measured another. */
async function listedStature(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  rows: readonly Evidence[],
): Promise<Evidence[]> {
  if (rows.some(({ kind }) => kind === 'stature')) return []
  const mm = (await findMember(db, scope, memberId))?.statureMm
  return mm ? [{ kind: 'stature', mm }] : []
}

/** Removes the hand position of a wish where this type lacks it; the posture stays. */
function withExistingGrip(type: BikeType, { grip, ...wish }: EvidenceOf<'wish'>): Evidence {
  return type.grips?.some(({ name }) => name === grip) ? { ...wish, grip } : wish
}

/**
 * Starts a new set-up of the same rider on the same bike from rows of one that somebody else saved meanwhile, all or
 * nothing; rows that do not fit the bike any more are left out. The row ids are the caller's, new ones: sent again it
 * is the same set-up.
 */
export async function continueSetup(
  db: Database,
  scope: Scope,
  { setupId, rows }: Readonly<{ setupId: string; rows: readonly StoredEvidence[] }>,
  now: Date,
): Promise<StartSetupResult> {
  const before = await findSetup(db, scope, setupId)
  if (!before) return { outcome: 'gone' }
  return withTransaction(db, async (tx) => {
    const started = await openSetup(tx, scope, { ...before, id: crypto.randomUUID() }, now)
    if (started.outcome !== 'kept') return started
    const { type } = (await findSetup(tx, scope, started.id))!
    for (const { id, row } of rows) {
      const checked = validateRow(type, row)
      if ('row' in checked) await appendEvidence(tx, scope, started.id, { id, row: checked.row }, now)
    }
    return { outcome: 'kept', id: started.id }
  })
}

/** One set-up, or null where the studio has none of this id. */
export async function findSetup(db: DbExecutor, scope: Scope, id: string): Promise<Setup | null> {
  const [found] = await db
    .select({
      id: setup.id,
      memberId: setup.memberId,
      bikeId: setup.bikeId,
      bikeNumber: bike.number,
      type: bikeType.definition,
      lineId: bikeType.lineId,
      equipment: bikeType.equipment,
      machineCalibration: setup.machineCalibration,
      finishedAt: setup.finishedAt,
    })
    .from(setup)
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(and(eq(setup.id, id), eq(setup.studioId, scope.studioId)))
  return found ?? null
}

/** A member's finished set-ups, the latest first, at most `limit` of them. */
export async function listFinishedSetups(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  limit = 50,
): Promise<FinishedSetup[]> {
  const found = await db
    .select({
      id: setup.id,
      bikeId: setup.bikeId,
      bikeNumber: bike.number,
      type: bikeType.definition,
      lineId: bikeType.lineId,
      machineCalibration: setup.machineCalibration,
      finishedAt: setup.finishedAt,
      finishedBy: user.name,
      numbers: evidence.row,
    })
    .from(setup)
    .innerJoin(evidence, eq(evidence.id, setup.numbersId))
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .innerJoin(user, eq(user.id, setup.finishedBy))
    .where(and(eq(setup.memberId, memberId), eq(setup.studioId, scope.studioId), isNotNull(setup.finishedAt)))
    .orderBy(desc(setup.finishedAt))
    .limit(limit)
  if (found.length === 0) return []
  const ids = found.map((f) => f.id)
  const rows = await db
    .select({ setupId: evidence.setupId, row: evidence.row })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(and(inArray(evidence.setupId, ids), isNull(withdrawal.evidenceId)))
    .orderBy(asc(evidence.position))
  return found.map(({ numbers, finishedAt, ...setup }) => ({
    ...setup,
    marks: numbers.at ?? {},
    ...(numbers.kind === 'set' && numbers.meant && { meant: numbers.meant }),
    finishedAt: finishedAt!,
    evidence: rows.filter((r) => r.setupId === setup.id).map((r) => r.row),
  }))
}

/**
 * The numbers of a member on the type of a set-up, usual ones first, with the latest answers; null where no set fits
 * its scales.
 */
export async function findPreviousNumbers(
  db: DbExecutor,
  scope: Scope,
  { memberId, type, lineId }: Pick<Setup, 'memberId' | 'type' | 'lineId'>,
): Promise<Readonly<{ marks: Marks; meant?: MeantReason; at: Date; rider: Evidence | null }> | null> {
  const ofType = (await currentEntries(db, scope, [memberId])).filter((entry) => entry.lineId === lineId)
  const found = [...ofType.filter((entry) => entry.purpose === 'usual'), ...ofType].find(
    ({ marks }) => 'row' in validateRow(type, { kind: 'set', at: marks }),
  )
  if (!found) return null
  const answered = await db
    .select({ row: evidence.row })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(and(eq(evidence.setupId, found.setupId ?? ''), isNull(withdrawal.evidenceId)))
    .orderBy(asc(evidence.position))
  const rider = answered.findLast(({ row }) => row.kind === 'rider')?.row ?? null
  return { marks: found.marks, ...(found.meant && { meant: found.meant }), at: found.createdAt, rider }
}

/** Number of earlier set-ups that inform a new one; older ones add little. */
const HISTORY_SETUPS = 4
/** The latest rows of each: the core takes no more. */
export const HISTORY_ROWS = 200
const DAY_MS = 86_400_000

/**
 * Earlier finished set-ups of a member on any type, latest first, for the prior of the core. Skips rows of earlier
 * product versions that the current schema rejects.
 */
export async function listHistory(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  now: Date,
): Promise<readonly EarlierSetup[]> {
  const setups = await listFinishedSetups(db, scope, memberId, HISTORY_SETUPS)
  return setups.map(({ type, machineCalibration, evidence: rows, finishedAt }) => ({
    bikeType: type,
    bike: machineCalibration,
    evidence: rows.filter((row) => 'row' in validateRow(type, row)).slice(-HISTORY_ROWS),
    agoDays: Math.max(0, (now.getTime() - finishedAt.getTime()) / DAY_MS),
  }))
}

/** A member's set-ups still open, the latest first. */
export async function listOpenSetups(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
): Promise<Readonly<{ id: string; bikeNumber: number; startedAt: Date }>[]> {
  return db
    .select({ id: setup.id, bikeNumber: bike.number, startedAt: setup.startedAt })
    .from(setup)
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .where(and(eq(setup.memberId, memberId), eq(setup.studioId, scope.studioId), isNull(setup.finishedAt)))
    .orderBy(desc(setup.startedAt))
}
