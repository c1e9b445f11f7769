import { schoolOf, type School } from '../../base/school/school'
import { REGIONS } from '../../classes/watch/signs'
import { causeRow, CAUSES, type Cause, type ChangedAxis } from '../model/causeTable'
import { changeFor } from '../changes/change'
import type { NoChange, Proposal } from '../changes/changeTypes'
import { areAllGood, isAxisInside } from '../findings/checksRead'
import { validFindings, prepareFindings } from '../findings/findingIndex'
import { redFlagsOf, type RedFlagReason } from '../model/redFlags'
import type { Complaint, ExplainRequest, Finding } from '../model/request'
import {
  causeWeights,
  leadingCauseWith,
  observedSignOf,
  weighCauses,
  type WeighingInputs,
  type AppliedRule,
  type Weighed,
} from './weigh'
import { plumbWindowMm } from '../model/windows'

/** A measurement that would change which cause leads, and between which causes it decides. */
export type Deciding = Readonly<{ kind: Finding['kind']; between: readonly Cause[] }>
/** Two complaints whose likeliest changes go opposite ways, or two findings that do not go together. */
export type Conflict =
  | Readonly<{
      kind: 'oppositeWishes'
      complaints: readonly [Complaint['what'], Complaint['what']]
      causes: readonly [Cause, Cause]
    }>
  | Readonly<{ kind: 'contradiction'; of: Finding['kind']; rules: readonly [string, string] }>

export type Explanation = Readonly<{
  school: School
  /** Those that were explained. */
  complaints: readonly Complaint[]
  causes: readonly Weighed[]
  deciding: readonly Deciding[]
  /** The cheap checks of these causes come before any change. */
  checks: readonly Cause[]
  proposal: (Proposal & Readonly<{ cause: Cause }>) | null
  /** Why nothing is changed, where nothing is and nobody is sent on; null beside a proposal. */
  noChange: WhyNoChange | null
  /** Pregnant: the sentence starts with the clinician's word. */
  clinicianFirst: boolean
  cue: string | null
  offBike: string | null
  /** Complaints that are no matter for a bike, with why; while there are any, nothing is changed. */
  referred: readonly Readonly<{ complaint: Complaint; flags: readonly RedFlagReason[] }>[]
  conflicts: readonly Conflict[]
  tried: readonly Cause[]
}>

export type WhyNoChange =
  | NoChange
  /** Everything that was read is as it should be. */
  | Readonly<{ code: 'allGood' }>
  /** Two complaints require opposite changes: one is solved first. */
  | Readonly<{ code: 'opposite' }>
  /** No cause is likely enough for more than a look. */
  | Readonly<{ code: 'unsure' }>
  /** What would be changed was on trial already, and did not help. */
  | Readonly<{ code: 'tried' }>

/** A cause is looked into, and a wish counted as opposite, from this share on; ours. */
const TELLING_SHARE = 0.12
const MAX_CHECKS = 4
const MAX_DECIDING = 2
/** A cause further down is put right instead where the first cannot be, if it has this part of the first's weight. */
const NEAR_FIRST = 0.5
/** A cause under this weight is looked at, and nothing is changed for it. */
const MIN_LEADING_WEIGHT = 0.2

/**
 * What is probably behind complaints, and the next best step. Red flags first: a complaint that has one is not
 * explained, and nothing is changed while there is one. The order of the request's lists does not matter. `tried`:
 * causes whose change was on trial for these complaints and did not help; they weigh less, and are not proposed again.
 */
export function explainComplaints(request: ExplainRequest, tried: readonly Cause[] = []): Explanation {
  const school = schoolOf(request.school)
  const complaints = inOrder(request.complaints)
  const findings = inOrder(request.findings)
  const referred = complaints
    .map((complaint) => ({
      complaint,
      flags: redFlagsOf(complaint, { health: request.health, others: complaints.filter((one) => one !== complaint) }),
    }))
    .filter(({ flags }) => flags.length > 0)
  const answered = complaints.filter((complaint) => !referred.some((one) => one.complaint === complaint))
  const inputs = { ...request, complaints: answered, findings, findingIndex: prepareFindings(findings), school, tried }
  const causes = weighCauses(inputs)
  const conflicts = [...oppositeWishes(inputs), ...contradictions(causes)]
  const stopped = referred.length > 0 || causes.length === 0
  const proposed = stopped ? null : proposalFor(causes, inputs, conflicts)
  const proposal = proposed && 'change' in proposed ? proposed : null
  return {
    school,
    complaints: answered,
    causes,
    tried,
    referred,
    conflicts: stopped ? [] : conflicts,
    deciding: stopped ? [] : decidingFindings(inputs, causes),
    checks: stopped ? [] : checksOf(causes),
    proposal,
    noChange: proposed && !('change' in proposed) ? proposed : null,
    clinicianFirst: request.health?.includes('pregnant') ?? false,
    cue: stopped ? null : cueFor(causes),
    offBike: stopped ? null : offBikeFor(causes),
  }
}

type ExplainInputs = ExplainRequest & WeighingInputs

/** Sorted by content, so that the order of the input does not matter. */
const inOrder = <T extends object>(items: readonly T[]): T[] =>
  items
    .map((item) => [item, JSON.stringify(Object.entries(item).toSorted(([a], [b]) => (a < b ? -1 : 1)))] as const)
    .toSorted(([, a], [, b]) => (a < b ? -1 : a > b ? 1 : 0))
    .map(([item]) => item)

/**
 * The change for the first of the likely causes that has a safe one; a lighter cause's only where the first is no
 * matter of measuring. Else why there is none, for the first cause.
 */
function proposalFor(
  causes: readonly Weighed[],
  explainInputs: ExplainInputs,
  conflicts: readonly Conflict[],
): NonNullable<Explanation['proposal']> | WhyNoChange {
  const [first] = causes
  // The size of a step is computed at the current marks.
  const findings = validFindings(explainInputs.findingIndex)
  if (conflicts.some(({ kind }) => kind === 'oppositeWishes')) return { code: 'opposite' }
  const axis = causeRow(first.cause).change?.axis
  // What the likeliest cause depends on was read, or cannot be read: bars with marks but no reading are not
  // enough.
  const isRead = axis === undefined || isAxisInside(axis, findings, explainInputs) !== null
  if (isRead && areAllGood(findings, explainInputs)) return { code: 'allGood' }
  if (first.weight < MIN_LEADING_WEIGHT) return { code: 'unsure' }
  if (!causeRow(first.cause).change) return { code: 'notOfAnAxis' }
  const leadingWeight = (axis: ChangedAxis) =>
    causes.find(({ cause }) => causeRow(cause).change?.axis === axis)?.weight ?? 0
  const inputs = { ...explainInputs, findings, leadingWeight }
  let why: WhyNoChange | null = null
  for (const { cause, weight } of causes) {
    if (weight < NEAR_FIRST * first.weight || weight < MIN_LEADING_WEIGHT / 2) break
    const found = explainInputs.tried.includes(cause) ? ({ code: 'tried' } as const) : changeFor(cause, inputs)
    if (isFound(found)) return { cause, ...found }
    why ??= found
    // What decides is measured before anything else is moved.
    if (found.code === 'measureFirst') break
  }
  return why ?? { code: 'notOfAnAxis' }
}

const isFound = (one: Proposal | WhyNoChange): one is Proposal => 'change' in one

/** What to look at first: the leading cause's own check, then what is cheap and often the reason. */
function checksOf(causes: readonly Weighed[]): Cause[] {
  const seen = new Set<string>()
  return (
    causes
      .map((one, i) => ({ ...one, i }))
      .filter(({ cause, i }) => i < 3 || CHEAP.includes(cause))
      // The leading cause's own first, then what is cheap.
      .toSorted(
        (a, b) =>
          Number(b.i === 0) - Number(a.i === 0) ||
          Number(CHEAP.includes(b.cause)) - Number(CHEAP.includes(a.cause)) ||
          b.weight - a.weight,
      )
      .map(({ cause }) => cause)
      .filter((cause) => {
        const { check } = causeRow(cause)
        if (seen.has(check)) return false
        seen.add(check)
        return true
      })
      .slice(0, MAX_CHECKS)
  )
}
const CHEAP: readonly Cause[] = [
  'wrongNumbers',
  'postSlipped',
  'slideSlipped',
  'saddleTwisted',
  'changedShoes',
  'strapOrCleat',
]

/** The cue of the lowest sign in the kinetic chain that supports a weighty cause; else the cue of the first cause. */
function cueFor(causes: readonly Weighed[]): string | null {
  const seen = causes
    .filter(({ weight }) => weight >= TELLING_SHARE)
    .flatMap((one) => one.for)
    .flatMap(({ finding }) => (finding?.kind === 'seen' ? [observedSignOf(finding)] : []))
    .filter((sign) => sign !== undefined)
    .toSorted((a, b) => REGIONS.indexOf(a.region) - REGIONS.indexOf(b.region))
  return seen.at(0)?.cue ?? causeRow(causes[0].cause).cue
}

/** What to do off the bike about the first of the likely causes that has something; null where none has. */
const offBikeFor = (causes: readonly Weighed[]): string | null =>
  causes
    .filter(({ weight }, i) => i === 0 || weight >= TELLING_SHARE)
    .map(({ cause }) => causeRow(cause).offBike)
    .find((text) => text !== null) ?? null

/** Below, within and above a window. */
const outcomesAround = ([low, high]: readonly [number, number], by: number): readonly number[] => [
  low - by,
  (low + high) / 2,
  high + by,
]

/** Possible results of each measurement, as far as the table distinguishes them. */
function outcomesOf(kind: Finding['kind'], school: School): readonly Finding[] {
  const [low, high] = school.kneeWindowDeg
  switch (kind) {
    case 'kneeAngle':
      return [low - 6, (low + high) / 2, high + 6].map((deg) => ({ kind: 'kneeAngle', deg }))
    case 'plumb':
      return outcomesAround(plumbWindowMm(school), 20).map((mm) => ({ kind: 'plumb', mm }))
    case 'tilt':
      return [-8, -1, 4].map((deg) => ({ kind: 'tilt', deg, shape: 'flat' }))
    case 'barsAgainstSaddle':
      return [-60, 30].map((mm) => ({ kind: 'barsAgainstSaddle', mm }))
    case 'elbows':
      return (['locked', 'soft', 'cramped'] as const).map((seen) => ({ kind: 'elbows', seen }))
    case 'rocking':
      return (['both', 'level'] as const).map((seen) => ({ kind: 'rocking', seen }))
    case 'viewAngle':
      return [0, 45].map((deg) => ({ kind: 'viewAngle', deg }))
    default:
      return []
  }
}
const MEASURED = [
  'kneeAngle',
  'plumb',
  'tilt',
  'barsAgainstSaddle',
  'elbows',
  'rocking',
  'viewAngle',
] as const satisfies readonly Finding['kind'][]

/** Measurements not on file whose outcome would change which cause leads, the one between the likeliest first. */
function decidingFindings(inputs: ExplainInputs, causes: readonly Weighed[]): Deciding[] {
  const weightOf = new Map(causes.map(({ cause, weight }) => [cause, weight]))
  const leaderWith = leadingCauseWith(inputs)
  return MEASURED.filter((kind) => !inputs.findings.some((one) => one.kind === kind && !one.otherType))
    .map((kind) => {
      const leaders = outcomesOf(kind, inputs.school).map((finding) => leaderWith(finding)!)
      return { kind, between: [...new Set(leaders)].toSorted((a, b) => weightOf.get(b)! - weightOf.get(a)!) }
    })
    .filter(({ between }) => between.length > 1)
    .toSorted((a, b) => atStake(b.between, weightOf) - atStake(a.between, weightOf))
    .slice(0, MAX_DECIDING)
}

const atStake = (causes: readonly Cause[], weightOf: ReadonlyMap<Cause, number>): number =>
  causes.slice(0, 2).reduce((total, cause) => total + weightOf.get(cause)!, 0)

/** Pairs of complaints whose own likeliest changes of one axis go opposite ways. */
function oppositeWishes(inputs: ExplainInputs): Conflict[] {
  if (inputs.complaints.length < 2) return []
  const wishes = inputs.complaints.map((complaint) => ({
    what: complaint.what,
    causes: [...causeWeights({ ...inputs, complaints: [complaint] })]
      .filter(([cause, weight]) => weight >= TELLING_SHARE && causeRow(cause).change)
      .toSorted(([a, one], [b, other]) => other - one || CAUSES.indexOf(a) - CAUSES.indexOf(b))
      .map(([cause]) => cause),
  }))
  return wishes.flatMap((one, i) =>
    wishes.slice(i + 1).flatMap((other): Conflict[] => {
      if (other.what === one.what) return []
      const pair = one.causes
        .flatMap((a) => other.causes.map((b) => [a, b] as const))
        .find(([a, b]) => pullOppositeWays(a, b) && !one.causes.includes(b) && !other.causes.includes(a))
      return pair ? [{ kind: 'oppositeWishes', complaints: [one.what, other.what], causes: pair }] : []
    }),
  )
}

function pullOppositeWays(a: Cause, b: Cause): boolean {
  const [one, other] = [causeRow(a).change, causeRow(b).change]
  return one !== null && other !== null && one.axis === other.axis && one.direction !== other.direction
}

/** Findings of one kind that speak for and against the same cause, both of full age. */
function contradictions(causes: readonly Weighed[]): Conflict[] {
  const found = new Map<string, Conflict>()
  for (const { for: pro, against } of causes)
    for (const a of pro)
      for (const b of against) {
        if (!a.finding || !b.finding || a.finding.kind !== b.finding.kind || isWeaker(a) || isWeaker(b)) continue
        const of = a.finding.kind
        if (of === 'changed' || found.has(of)) continue
        found.set(of, { kind: 'contradiction', of, rules: [a.rule.rule, b.rule.rule] })
      }
  return [...found.values()]
}

const isWeaker = ({ less }: AppliedRule): boolean => less !== null
