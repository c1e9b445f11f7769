import jstat from 'jstat'
import { shareDifference, type Count } from '../classes/watch/proportions'
import type { ComplaintName } from './model/causeTable'

const { jStat } = jstat

/** A ride on a bike, and on which side alone something was felt then; null where nothing was, or on both. */
export type RideRecord = Readonly<{ memberId: string; bikeId: string; oneSided: 'left' | 'right' | null }>
/** A cue given to a rider for a sign, and whether the sign was gone at the second look. */
export type CueRecord = Readonly<{ memberId: string; sign: string; held: boolean }>

/** A bike on which riders complain of one side more than the same riders do elsewhere: look along its saddle. */
export type OneSidedBike = Readonly<{
  bikeId: string
  side: 'left' | 'right'
  /** Riders who felt it on that side here, and on other bikes (pairs of rider and bike). */
  here: Count
  elsewhere: Count
  /** Chance of so many or more were the bike like the others, before the correction for how many were looked at. */
  pValue: number
}>

/** A cue that works significantly more or less often than all others together, with the interval of the difference. */
export type SignificantCue = Readonly<{
  sign: string
  holds: 'more' | 'less'
  own: Count
  others: Count
  difference: number
  low: number
  high: number
}>

/** All findings of one kind together are wrong about a studio without any in so many of a hundred cases at most. */
const FAMILY_ALPHA = 0.025
/** Minimum sample sizes of a finding: riders on the bike, and riders who complained there; assumptions. */
const MIN_RIDERS = 8
const MIN_COMPLAINING = 3
/** Looks at a cue, its own and others'; ours. */
const MIN_LOOKS = 12
/** Who feels the same side on so many other bikes carries it along: it is not the bike. */
const CARRIED_ON_BIKES = 2

/**
 * Bikes with a one-sided complaint too often: riders counted once a bike, those who feel that side elsewhere too left
 * out, an exact binomial test against the share of all other pairs of rider and bike, corrected for the number of bikes
 * and sides looked at (Bonferroni).
 */
export function oneSidedBikes(rides: readonly RideRecord[]): OneSidedBike[] {
  const bikes = [...new Set(rides.map(({ bikeId }) => bikeId))].toSorted()
  const alpha = FAMILY_ALPHA / Math.max(1, 2 * bikes.length)
  return (['left', 'right'] as const)
    .flatMap((side) => {
      const pairs = pairsOf(rides, side)
      const feltOn = new Map<string, number>()
      for (const { memberId, felt } of pairs) if (felt) feltOn.set(memberId, (feltOn.get(memberId) ?? 0) + 1)
      const counted = (bikeId: string, here: boolean): Count => {
        const own = pairs.filter(
          (pair) =>
            (pair.bikeId === bikeId) === here &&
            (feltOn.get(pair.memberId) ?? 0) - Number(pair.felt) < CARRIED_ON_BIKES,
        )
        return { changed: own.filter(({ felt }) => felt).length, of: own.length }
      }
      return bikes.map((bikeId): OneSidedBike => {
        const [here, elsewhere] = [counted(bikeId, true), counted(bikeId, false)]
        return { bikeId, side, here, elsewhere, pValue: binomialTail(here, shareOf(elsewhere)) }
      })
    })
    .filter(({ here, pValue }) => here.of >= MIN_RIDERS && here.changed >= MIN_COMPLAINING && pValue < alpha)
    .toSorted((a, b) => a.pValue - b.pValue)
}

/** A rider on a bike, and whether they ever felt that side alone there. */
function pairsOf(rides: readonly RideRecord[], side: 'left' | 'right') {
  const pairs = new Map<string, { memberId: string; bikeId: string; felt: boolean }>()
  for (const { memberId, bikeId, oneSided } of rides) {
    const key = `${memberId} ${bikeId}`
    const pair = pairs.get(key) ?? { memberId, bikeId, felt: false }
    pair.felt ||= oneSided === side
    pairs.set(key, pair)
  }
  return [...pairs.values()]
}

/** One more than none and one less than all: a share of nothing seen yet is not nought (Laplace's rule). */
const shareOf = ({ changed, of }: Count): number => (changed + 1) / (of + 2)

/** Chance of so many or more out of `of`, each with chance `share`. */
const binomialTail = ({ changed, of }: Count, share: number): number =>
  changed === 0 ? 1 : 1 - jStat.binomial.cdf(changed - 1, of, share)

/**
 * Cues that work significantly more or less often than all others together: the first look of each rider counts;
 * Newcombe's interval of the difference, with Bonferroni correction for the number of cues.
 */
export function significantCues(cues: readonly CueRecord[]): SignificantCue[] {
  const first = new Map<string, CueRecord>()
  for (const cue of cues) if (!first.has(`${cue.memberId} ${cue.sign}`)) first.set(`${cue.memberId} ${cue.sign}`, cue)
  const looks = [...first.values()]
  const signs = [...new Set(looks.map(({ sign }) => sign))].toSorted()
  const z = jStat.normal.inv(1 - FAMILY_ALPHA / Math.max(1, 2 * signs.length), 0, 1)
  const countOf = (which: (look: CueRecord) => boolean): Count => {
    const own = looks.filter(which)
    return { changed: own.filter(({ held }) => held).length, of: own.length }
  }
  return signs
    .map((sign): SignificantCue => {
      const [own, others] = [countOf((look) => look.sign === sign), countOf((look) => look.sign !== sign)]
      const between = shareDifference(own, others, z)
      return { sign, own, others, ...between, holds: between.difference > 0 ? 'more' : 'less' }
    })
    .filter(({ own, others, low, high }) => own.of >= MIN_LOOKS && others.of >= MIN_LOOKS && low * high > 0)
    .toSorted((a, b) => Math.abs(b.difference) - Math.abs(a.difference))
}

/** Number of riders of a type with a complaint there, each rider once; only for types with enough riders. */
export type ComplaintShare = Readonly<{ what: ComplaintName; type: string; count: Count }>

/** Minimum riders of a type, and of a complaint on it, for a share to be shown. Assumptions. */
const MIN_OF_TYPE = 10
const MIN_OF_COMPLAINT = 3

/** Complaints of each type by the share of its riders with them, most frequent first. */
export function complaintsByType(
  rides: readonly Readonly<{ memberId: string; type: string }>[],
  felt: readonly Readonly<{ memberId: string; type: string; what: ComplaintName }>[],
): ComplaintShare[] {
  const ridersOf = new Map<string, Set<string>>()
  for (const { memberId, type } of [...rides, ...felt])
    ridersOf.set(type, (ridersOf.get(type) ?? new Set()).add(memberId))
  const reports = new Map<string, { what: ComplaintName; type: string; riders: Set<string> }>()
  for (const { memberId, type, what } of felt) {
    const key = `${type} ${what}`
    const one = reports.get(key) ?? { what, type, riders: new Set() }
    one.riders.add(memberId)
    reports.set(key, one)
  }
  return [...reports.values()]
    .map(({ what, type, riders }) => ({ what, type, count: { changed: riders.size, of: ridersOf.get(type)!.size } }))
    .filter(({ count }) => count.of >= MIN_OF_TYPE && count.changed >= MIN_OF_COMPLAINT)
    .toSorted((a, b) => b.count.changed / b.count.of - a.count.changed / a.count.of || (a.what < b.what ? -1 : 1))
}
