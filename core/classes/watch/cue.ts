import { REGIONS, signNamed, type Sign } from './signs'
import { shareDifference, type Count } from './proportions'

/** A note as far as cues go: what was seen, whether a cue was given for it, and whether the cue worked. */
export type CuedNote = Readonly<{
  memberId: string
  sign: string
  cued: boolean
  /** Null while nobody has looked again. */
  held: boolean | null
}>

/** A cue that failed this often is not repeated: set-up first, then strength (common practice, no source). */
export const FAILS_BEFORE_SETUP = 3

/** What to do about a sign: give its cue, or look at the set-up since cues did not help. */
export type CueAdvice =
  | Readonly<{ kind: 'say'; sign: Sign; said: number; held: number; failed: number }>
  | Readonly<{ kind: 'setUpFirst'; sign: Sign; failed: number }>

const rank = (sign: Sign): number => REGIONS.indexOf(sign.region)

/**
 * The one cue for a rider: of all open signs the lowest, since a fault below shows above. `earlier`
 * are this rider's notes of all classes, this one's too. Null where nothing is open.
 */
export function cueAdvice(open: readonly string[], earlier: readonly CuedNote[]): CueAdvice | null {
  const signs = open.map(signNamed).filter((sign) => sign !== undefined)
  if (signs.length === 0) return null
  const sign = signs.reduce((lowest, one) => (rank(one) < rank(lowest) ? one : lowest))
  const cued = earlier.filter((note) => note.sign === sign.sign && note.cued)
  const failed = cued.filter(({ held }) => held === false).length
  const answered = cued.filter((note) => note.held === true).length
  if (failed >= FAILS_BEFORE_SETUP && answered < failed) return { kind: 'setUpFirst', sign, failed }
  return { kind: 'say', sign, said: cued.length, held: answered, failed }
}

/** Minimum share of riders who need a cue for a cue to the room (common practice, no source). */
export const MIN_ROOM_SHARE = 0.25

/**
 * The sign with an open note on most riders, the lower one of a tie. Null if fewer than a quarter of `riders` have it.
 */
export function roomCue(
  open: readonly Readonly<{ memberId: string; sign: string }>[],
  riders: number,
): Readonly<{ sign: Sign; riders: readonly string[] }> | null {
  const ridersOf = new Map<string, Set<string>>()
  for (const { memberId, sign } of open)
    if (signNamed(sign)) ridersOf.set(sign, (ridersOf.get(sign) ?? new Set()).add(memberId))
  const all = [...ridersOf]
    .map(([sign, concerned]) => ({ sign: signNamed(sign)!, riders: [...concerned] }))
    .filter((one) => one.riders.length >= MIN_ROOM_SHARE * riders)
  if (all.length === 0) return null
  return all.reduce((best, one) =>
    one.riders.length > best.riders.length ||
    (one.riders.length === best.riders.length && rank(one.sign) < rank(best.sign))
      ? one
      : best,
  )
}

/** What a cue to the room changed: of whom it concerned, against whom it did not, and what lies between them. */
export type RoomCueResult = Readonly<{
  concerned: Count
  others: Count
  difference: number
  low: number
  high: number
}>

/** A re-scan after a cue to the room; null before anybody it concerned was looked at again. */
export function roomCueResult(concerned: Count, others: Count): RoomCueResult | null {
  return concerned.of === 0 ? null : { concerned, others, ...shareDifference(concerned, others) }
}
