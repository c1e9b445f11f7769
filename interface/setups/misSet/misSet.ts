import type { Marks } from '@/core/base/conventions'
import { isBodyEvidence, isSaddleCheck } from '@/core/riders/evidence/evidence'
import type { Evidence } from '@/core/riders/evidence/registry'
import type { MisSetRequest, MisSetResponse } from '@/core/operations/requests/misSet'
import { latestRow, rowsSinceSet, type Row } from '../steps/flow'

/** The core takes no more rows. */
const MAX_ROWS = 40

/**
 * Request of the core for the bike as set: what is seen at these marks against what earlier set-ups show of the
 * rider. Null where there is nothing to compare: the rider was never checked in the saddle, or not yet here.
 */
export function misSetQuestion(
  situation: Omit<MisSetRequest, 'marks' | 'evidence'>,
  rows: readonly Row[],
  current: Marks,
): MisSetRequest | null {
  const seen = rowsSinceSet(rows).flatMap(({ row }) =>
    isSaddleCheck(row) ? [{ ...row, at: current } as Evidence] : [],
  )
  if (seen.length === 0 || !situation.history.some(({ evidence }) => evidence.some(isSaddleCheck))) return null
  const rider = latestRow(rows, 'rider')
  const body = rows.flatMap(({ row }) => (isBodyEvidence(row) ? [row] : []))
  const evidence = [...(rider ? [rider.row] : []), ...[...body, ...seen].slice(1 - MAX_ROWS)]
  return { ...situation, marks: current, evidence }
}

/** A row withdrawn and the one that takes its place. */
export type Replacement = Readonly<{ old: Row | undefined; row: Evidence }>

/**
 * Entries for readings that were taken at other marks than recorded: the true marks as they
 * were, and each look since then as taken there.
 */
export function relocateReadings(rows: readonly Row[], truly: Marks): Replacement[] {
  const set = latestRow(rows, 'set')
  const looks = rowsSinceSet(rows).filter(({ row }) => row.at !== undefined)
  return [
    { old: set, row: { ...set?.row, kind: 'set', at: { ...set?.row.at, ...truly } } },
    ...looks.map((old) => ({ old, row: { ...old.row, at: { ...old.row.at, ...truly } } as Evidence })),
  ]
}

/** Whether it is not likelier than not that nothing is mis-set: then the post is read first. */
export const isSuspect = ({ causes }: MisSetResponse): boolean =>
  (causes.find(({ code }) => code === 'asSet')?.chance ?? 0) <= 0.5
