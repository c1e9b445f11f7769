import { isSaddleCheck } from '../../riders/evidence/evidence'
import { advise } from '../recommend/recommend'
import type { EarlierSetup } from '../recommend/history/riderHistory'
import type { Prior } from '../../riders/rider/prior'
import type { School } from '../../base/school/school'

/** A finished set-up, with the earlier set-ups of its rider. */
export type CheckedSetup = Omit<EarlierSetup, 'agoDays'> & Readonly<{ history?: readonly EarlierSetup[] }>

/**
 * The first saddle suggested: the chance it was given, that knee and plumb line would both be right there, and how
 * likely it is right by all that was read afterwards. Where the model is honest the two are equal on average.
 */
export type FirstSuggestion = Readonly<{ stated: number; right: number }>

type StudioContext = Readonly<{ school?: Partial<School>; prior?: Partial<Prior> }>

const SAMPLES = 1000

/** The first suggestion of a set-up, recomputed from the evidence before the first look in the saddle. */
export function firstSuggestion(setup: CheckedSetup, { school, prior }: StudioContext, seed = 1): FirstSuggestion {
  const { evidence, ...where } = setup
  const firstLook = evidence.findIndex(isSaddleCheck)
  const beforeFirstLook = evidence
    .slice(0, firstLook < 0 ? evidence.length : firstLook)
    .filter(({ kind }) => kind !== 'set')
  const recommendAfter = (rows: CheckedSetup['evidence'], from: number) =>
    advise({ ...where, school, prior, evidence: rows, seed: from, samples: SAMPLES })
  const first = recommendAfter(beforeFirstLook, seed)
  const { seatHeight, seatSlide } = first.marks
  // Another seed: the two share no error of sampling.
  const after = recommendAfter([...evidence, { kind: 'set', at: { seatHeight, seatSlide } }], seed + 1)
  return { stated: first.chance, right: after.chance }
}

/** Suggestions that were stated about as likely, and how many of them were right, with one standard error. */
export type StatedGroup = Readonly<{ count: number; stated: number; right: number; se: number }>

/** How stated and true shares compare: over all, and by how likely they were stated, from the least. */
export type SuggestionRecord = Readonly<{ all: StatedGroup; groups: readonly StatedGroup[] }>

/** Number of groups of one size by stated chance; few suggestions support no more. */
const GROUPS = 4
/** Minimum size of a group. */
const MIN_GROUP_SIZE = 5

/** Suggestions in any order. The standard error is that of a share of as many riders, at the chance that was stated. */
export function suggestionRecord(suggestions: readonly FirstSuggestion[]): SuggestionRecord {
  const sorted = [...suggestions].sort((a, b) => a.stated - b.stated)
  const size = Math.max(MIN_GROUP_SIZE, Math.ceil(sorted.length / GROUPS))
  const groups: StatedGroup[] = []
  for (let i = 0; i < sorted.length; i += size) {
    const group = sorted.slice(i, i + size)
    if (group.length >= MIN_GROUP_SIZE) groups.push(shareOf(group))
  }
  return { all: shareOf(sorted), groups }
}

function shareOf(group: readonly FirstSuggestion[]): StatedGroup {
  const count = group.length
  const mean = (of: (one: FirstSuggestion) => number) => group.reduce((sum, one) => sum + of(one), 0) / count
  if (count === 0) return { count, stated: 0, right: 0, se: 0 }
  return {
    count,
    stated: mean(({ stated }) => stated),
    right: mean(({ right }) => right),
    se: Math.sqrt(mean(({ stated }) => stated * (1 - stated)) / count),
  }
}
