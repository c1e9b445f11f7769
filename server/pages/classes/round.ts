import { and, desc, eq, inArray, isNull } from 'drizzle-orm'
import { isErrorResponse } from '../../../core/operations/errorResponse'
import type { Recommendation } from '../../../core/operations/requests/recommend'
import { roundSteps, type Newcomer, type RoundStep } from '../../../core/classes/planning/round'
import { isSaddleCheck } from '../../../core/riders/evidence/evidence'
import type { Scope } from '../../platform/accounts/scope'
import { compute } from '../../platform/compute/pool'
import type { DbExecutor } from '../../platform/db/connection'
import { setup } from '../../setups/tables'
import { findSetup } from '../../setups/setups'
import { listEvidence } from '../../setups/evidence'
import { validateRow } from '../../setups/validateRow'
import { getStudio } from '../../studio/studio'
import type { StudioClass } from '../../classes/classes'
import { planClass } from '../../classes/planning'

/** A newcomer on a round: what to do, and the chance that the saddle is wrong as set. */
export type RoundRider = RoundStep &
  Readonly<{ name: string; number: number; bikeId: string; wrong: number | null; setupId: string | null }>
export type RoundData = Readonly<{
  steps: readonly RoundRider[]
  done: readonly Readonly<{ name: string; number: number }>[]
  /** Newcomers on the list who have no bike yet. */
  withoutBike: readonly string[]
}>

/**
 * The round of a class's newcomers: everybody by landmark first, then by the chance of being wrong. The chance is what
 * the result of `recommend` for the marks as set.
 */
export async function roundOf(db: DbExecutor, scope: Scope, ofClass: StudioClass, now: Date): Promise<RoundData> {
  const { roster, seats, needs, ready, floor, entries } = await planClass(db, scope, ofClass, now)
  const numberOf = new Map(floor.map(({ bike }) => [bike.id, bike.number]))
  const isNew = (memberId: string) =>
    needs.get(memberId) === 'new' || (ready.has(memberId) && entries.some((entry) => entry.memberId === memberId))
  const newcomers = roster.filter(({ memberId, state }) => state !== 'cancelled' && seats.has(memberId))
  const open = newcomers.filter(({ memberId }) => needs.get(memberId) === 'new')
  const latest = await openSetups(
    db,
    scope,
    open.map(({ memberId }) => memberId),
  )
  const checks = new Map<string, { wrong: number | null; setupId: string; isChecked: boolean }>()
  for (const { memberId } of open) {
    const bikeId = seats.get(memberId)!
    const found = latest.find((one) => one.memberId === memberId && one.bikeId === bikeId)
    if (found) checks.set(memberId, { setupId: found.id, ...(await checksOf(db, scope, found.id)) })
  }
  const listed = open.map(({ memberId, comesMinBefore }): Newcomer => {
    const check = checks.get(memberId)
    return {
      id: memberId,
      arrivesMin: -comesMinBefore,
      isSet: check?.wrong != null,
      isChecked: check?.isChecked ?? false,
      wrong: check?.wrong ?? null,
    }
  })
  const nameOf = new Map(roster.map(({ memberId, name }) => [memberId, name]))
  return {
    steps: roundSteps(listed).map((step) => ({
      ...step,
      name: nameOf.get(step.id) ?? '',
      bikeId: seats.get(step.id)!,
      number: numberOf.get(seats.get(step.id)!) ?? 0,
      wrong: checks.get(step.id)?.wrong ?? null,
      setupId: checks.get(step.id)?.setupId ?? null,
    })),
    withoutBike: roster
      .filter(({ memberId, state }) => state !== 'cancelled' && !seats.has(memberId) && needs.get(memberId) === 'new')
      .map(({ name }) => name),
    done: newcomers
      .filter(({ memberId }) => (ready.has(memberId) && isNew(memberId)) || checks.get(memberId)?.isChecked)
      .map(({ memberId, name }) => ({ name, number: numberOf.get(seats.get(memberId)!) ?? 0 })),
  }
}

async function openSetups(db: DbExecutor, scope: Scope, memberIds: readonly string[]) {
  if (memberIds.length === 0) return []
  return db
    .select({ id: setup.id, memberId: setup.memberId, bikeId: setup.bikeId })
    .from(setup)
    .where(and(eq(setup.studioId, scope.studioId), inArray(setup.memberId, [...memberIds]), isNull(setup.finishedAt)))
    .orderBy(desc(setup.startedAt))
}

/** State of a set-up: the chance that the saddle is wrong as set, and whether somebody looked at the knee. */
async function checksOf(
  db: DbExecutor,
  scope: Scope,
  setupId: string,
): Promise<Readonly<{ wrong: number | null; isChecked: boolean }>> {
  const found = await findSetup(db, scope, setupId)
  if (!found) return { wrong: null, isChecked: false }
  const rows = (await listEvidence(db, scope, setupId))
    .map(({ row }) => row)
    .filter((row) => 'row' in validateRow(found.type, row))
  if (!rows.some(({ kind }) => kind === 'set')) return { wrong: null, isChecked: rows.some(isSaddleCheck) }
  const { school } = await getStudio(db, scope)
  const answer = await compute<Pick<Recommendation, 'chances' | 'marks'>>('recommend', {
    bikeType: found.type,
    bike: found.machineCalibration,
    evidence: rows,
    school,
  })
  return {
    wrong: isErrorResponse(answer) ? 0.5 : 1 - chanceAt(answer),
    isChecked: rows.some(isSaddleCheck),
  }
}

/** The chance that the current seat height is right. */
const chanceAt = ({ chances, marks }: Pick<Recommendation, 'chances' | 'marks'>): number =>
  chances.seatHeight?.find(({ label }) => label === marks.seatHeight)?.chance ?? 0.5
