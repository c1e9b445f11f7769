import { latest } from './evidence'
import type { Evidence, EvidenceOf } from './registry'

/** Validity of an answer, days; assumption. */
const DUE_DAYS = Object.freeze({
  /** Shoes, pedal side and experience. */
  rider: 180,
  /** A new rider is soon none, a sore back may have healed, a pregnancy goes on. */
  passing: 42,
  wish: 180,
  build: 730,
})

/** Validity of the answer on pregnancy, days; a pregnancy lasts about 280. */
const PREGNANT_DAYS = 280

/** What was answered at an earlier set-up, so many days ago. */
export type EarlierAnswers = Readonly<{ evidence: readonly Evidence[]; agoDays: number }>

/**
 * Valid answers from a member's earlier set-ups: shoes, wish and build, each from the latest set-up that has it.
 * `earlier` in any order.
 */
export function standingAnswers(earlier: readonly EarlierAnswers[]): readonly Evidence[] {
  return (['rider', 'wish', 'build'] as const).flatMap((kind) => {
    const found = latestAnswer(earlier, kind)
    return found && found.agoDays <= dueDays(found.row) ? [withoutPlace(found.row)] : []
  })
}

/** The latest answer of a kind, still standing or not, and how long ago it was given; null where there is none. */
export function latestAnswer<K extends 'rider' | 'wish' | 'build'>(
  earlier: readonly EarlierAnswers[],
  kind: K,
): Readonly<{ row: EvidenceOf<K>; agoDays: number }> | null {
  for (const { evidence, agoDays } of [...earlier].sort((a, b) => a.agoDays - b.agoDays)) {
    const row = latest(evidence, kind)
    if (row) return { row, agoDays }
  }
  return null
}

/**
 * Whether the latest valid answer on pregnancy is yes; answers without that field do not count. `earlier` in any order,
 * set-ups and answers from home together.
 */
export function isPregnant(earlier: readonly EarlierAnswers[]): boolean {
  const healthRows = earlier.flatMap(({ evidence, agoDays }) => {
    const row = evidence.findLast(statesPregnancy)
    return row ? [{ agoDays, pregnant: row.pregnant === true }] : []
  })
  const [newest] = healthRows.sort((a, b) => a.agoDays - b.agoDays)
  return newest !== undefined && newest.pregnant && newest.agoDays < PREGNANT_DAYS
}

const statesPregnancy = (row: Evidence): row is EvidenceOf<'rider'> =>
  row.kind === 'rider' && row.pregnant !== undefined

/** A rider's answers, with pregnancy from an earlier answer where they lack the field. */
export const withPregnancy = <R extends Evidence>(row: R, earlier: readonly EarlierAnswers[]): R =>
  row.kind === 'rider' && row.pregnant === undefined && isPregnant(earlier) ? { ...row, pregnant: true } : row

function dueDays(row: Evidence): number {
  if (row.kind === 'rider')
    return row.experience === 'new' || row.backSore || row.pregnant ? DUE_DAYS.passing : DUE_DAYS.rider
  return row.kind === 'wish' ? DUE_DAYS.wish : DUE_DAYS.build
}

/** An answer is about the rider: removes the marks of the bike at the time. */
const withoutPlace = (row: Evidence): Evidence =>
  Object.fromEntries(Object.entries(row).filter(([field]) => field !== 'at')) as Evidence
