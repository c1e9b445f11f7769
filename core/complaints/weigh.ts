import type { School } from '../school/school'
import { signNamed } from '../watch/signs'
import {
  CAUSE_TABLE,
  CAUSES,
  complaintRow,
  FINDING_FACTOR,
  SUSPICION_ODDS,
  type Cause,
  type FindingRule,
} from './causeTable'
import type { Complaint, ExplainRequest, Finding } from './request'
import {
  INVALIDATED_BY_CHANGE,
  isOfOtherType,
  withMeasurement,
  type Known,
  type KnownFindings,
  type Prepared,
} from './knownFindings'
import { areOppositeSides, matches } from './ruleMatches'
import { seenSign } from './seenSign'
import { offWindow, plumbWindowMm } from './windows'

/** Each further complaint that a cause explains too makes it so much likelier for the others; ours. */
const SHARED_BY_COMPLAINTS = 1.6
/** How far a finding from a bike of another type counts, as an exponent of its factor; ours. */
const OTHER_TYPE_COUNTS = 0.4
/** How far a finding counts that is older than a change of what it was found on; ours. */
const BEFORE_CHANGE_COUNTS = 0.3
/** How far a note counts that was seen on the other side than the complaint's; ours. */
const OTHER_SIDE_COUNTS = 0.4
/** A note whose cue worked was a habit: weaker evidence for other causes. Assumption. */
const HELD_COUNTS = 0.6
/** How far a note counts that an instrument does not bear out: an instrument outranks a note. Ours. */
const NOT_BORNE_OUT_COUNTS = 0.25
/**
 * What older findings spoke against becomes at most so much likelier by a change: never more than what the change
 * itself points to, or a change would lower the weight of its own causes.
 */
const MAX_RELEASED_FACTOR = FINDING_FACTOR.strong

/** A rule that speaks: how far it counts (0–1), by which finding, and why it counts less. */
export type AppliedRule = Readonly<{
  rule: FindingRule
  counts: number
  /** How far it would count had nothing been changed since. */
  unagedCounts: number
  /** Changes count each; all other findings once. */
  times: number
  /** Undefined for the complaint itself and the rider's experience. */
  finding: Finding | undefined
  less: 'otherType' | 'beforeChange' | 'otherSide' | 'held' | 'notBorneOut' | null
}>

export type Weighed = Readonly<{
  cause: Cause
  /** Share of all causes, 0–1; weights add to 1. */
  weight: number
  /** Rules for and against it, the strongest first. */
  for: readonly AppliedRule[]
  against: readonly AppliedRule[]
}>

export type Asked = Pick<ExplainRequest, 'complaints' | 'experience' | 'health'> &
  Readonly<{
    known: KnownFindings
    school: School
    /** Causes whose change was on trial for these complaints and did not help: as a strong finding against them. */
    tried: readonly Cause[]
  }>

/**
 * Causes by weight, heaviest first: for each complaint the odds of its causes times the factor of every rule that
 * speaks (a log-linear model, as naive Bayes without normalised likelihoods), normalised, then mixed by how strong the
 * complaints are. A rule counts once, by the finding that counts most; a change counts every time. Empty where no
 * complaint has causes.
 */
export function weighCauses(asked: Asked): Weighed[] {
  const { perComplaint, weights } = weigh(asked)
  // Causes of the same complaints have heard the same rules.
  const heard = new Map<string, AppliedRule[]>()
  return [...weights]
    .map(([cause, weight]): Weighed => {
      const of = perComplaint.filter((one) => one.weights.has(cause))
      const key = of.map((one) => perComplaint.indexOf(one)).join()
      const spoken = heard.get(key) ?? uniqueRules(of.flatMap((one) => one.spoken))
      heard.set(key, spoken)
      return {
        cause,
        weight,
        for: spoken.filter(({ rule }) => rule.for.includes(cause)),
        against: spoken.filter(({ rule }) => rule.against.includes(cause)),
      }
    })
    .toSorted((a, b) => b.weight - a.weight || CAUSES.indexOf(a.cause) - CAUSES.indexOf(b.cause))
}

/**
 * The leading cause if this were measured too; null where no complaint has causes. Re-evaluates only the rules about
 * that measurement.
 */
export function leadingCauseWith(asked: Asked): (measured: Finding) => Cause | null {
  const complaints = answerable(asked)
  const heard = complaints.map((complaint) => applicableRules(complaint, asked))
  return (measured) => {
    const known = withMeasurement(asked.known, measured)
    const { weights } = weigh(asked, (complaint, i) => [
      ...heard[i].filter(({ rule }) => rule.when.kind !== measured.kind),
      ...applicableRules(complaint, { ...asked, known }, RULES_ABOUT.get(measured.kind) ?? []),
    ])
    let leading: Cause | null = null
    let most = 0
    for (const [cause, weight] of weights)
      if (weight > most || (weight === most && leading && CAUSES.indexOf(cause) < CAUSES.indexOf(leading)))
        [leading, most] = [cause, weight]
    return leading
  }
}

/** How heavy each cause is, 0–1, in no order. */
export const causeWeights = (asked: Asked): ReadonlyMap<Cause, number> => weigh(asked).weights

const RULES_ABOUT = new Map<string, readonly FindingRule[]>(
  [...new Set(CAUSE_TABLE.findings.map(({ when }) => when.kind))].map((kind) => [
    kind,
    CAUSE_TABLE.findings.filter(({ when }) => when.kind === kind),
  ]),
)

const answerable = ({ complaints }: Asked): Complaint[] =>
  complaints.filter(({ what }) => complaintRow(what).causes.length > 0)

function weigh(
  asked: Asked,
  hear: (complaint: Complaint, i: number) => AppliedRule[] = (complaint) => applicableRules(complaint, asked),
) {
  const complaints = answerable(asked)
  const perComplaint = complaints.map((complaint, i) => weighOne(complaint, complaints, asked, hear(complaint, i)))
  const weights = new Map<Cause, number>()
  const shares = sharesOf(complaints)
  perComplaint.forEach((one, i) => {
    for (const [cause, weight] of one.weights) weights.set(cause, (weights.get(cause) ?? 0) + weight * shares[i])
  })
  return { perComplaint, weights }
}

/**
 * How much each complaint counts, adding to 1: by its strength, and by how many causes share its suspicion, so that the
 * likeliest cause of a complaint with few causes does not outweigh that of a stronger one with many.
 */
function sharesOf(complaints: readonly Complaint[]): readonly number[] {
  const anyStrength = complaints.some(({ strength }) => strength > 0)
  const sizes = complaints.map(({ what, strength }) => {
    const odds = complaintRow(what).causes.map(({ suspicion }) => SUSPICION_ODDS[suspicion])
    return ((anyStrength ? strength : 1) * sum(odds)) / Math.max(...odds)
  })
  const total = sum(sizes)
  return sizes.map((size) => size / total)
}

function weighOne(complaint: Complaint, all: readonly Complaint[], asked: Asked, spoken: readonly AppliedRule[]) {
  const others = [...new Set(all.map(({ what }) => what))].filter((what) => what !== complaint.what)
  const odds = complaintRow(complaint.what).causes.map(({ cause, suspicion }) => {
    const shared = others.filter((what) => explains(what, cause)).length
    let value = SUSPICION_ODDS[suspicion] * SHARED_BY_COMPLAINTS ** shared
    if (asked.tried.includes(cause)) value /= FINDING_FACTOR.strong
    let freed = 1
    for (const { rule, counts, unagedCounts, times } of spoken) {
      const factor = FINDING_FACTOR[rule.strength]
      if (rule.for.includes(cause)) value *= counts * times === 1 ? factor : factor ** (counts * times)
      if (!rule.against.includes(cause)) continue
      value /= unagedCounts === 1 ? factor : factor ** unagedCounts
      if (unagedCounts !== counts) freed *= factor ** (unagedCounts - counts)
    }
    return [cause, value * Math.min(freed, MAX_RELEASED_FACTOR)] as const
  })
  const total = sum(odds.map(([, value]) => value))
  return { spoken, weights: new Map(odds.map(([cause, value]) => [cause, value / total])) }
}

const explains = (what: Complaint['what'], cause: Cause): boolean =>
  complaintRow(what).causes.some((row) => row.cause === cause)

const TOLD = { counts: 1, unagedCounts: 1, times: 1, finding: undefined, less: null } as const

/** Every rule that speaks of a complaint, once each, by the finding that counts most. */
function applicableRules(
  complaint: Complaint,
  asked: Asked,
  rules: readonly FindingRule[] = CAUSE_TABLE.findings,
): AppliedRule[] {
  const { known, experience } = asked
  return rules.flatMap((rule): AppliedRule[] => {
    const { when } = rule
    if (when.kind === 'complaint') {
      const says =
        'side' in when
          ? when.side === (complaint.side === 'both' ? 'both' : complaint.side && 'one')
          : when.when === complaint.when
      return says ? [{ rule, ...TOLD }] : []
    }
    if (when.kind === 'experience') return when.is === experience ? [{ rule, ...TOLD }] : []
    let best: Omit<AppliedRule, 'rule' | 'times' | 'unagedCounts'> | null = null
    let unagedCounts = 0
    let times = 0
    for (const one of known.get(when.kind === 'seen' ? `seen ${when.sign}` : when.kind) ?? []) {
      if (!matches(when, one.finding, complaint, asked)) continue
      const heard = reliability(rule, one, complaint, asked.school)
      unagedCounts = Math.max(unagedCounts, heard.unagedCounts)
      times += 1
      if (!best || heard.counts > best.counts)
        best = { finding: one.finding as Finding, counts: heard.counts, less: heard.less }
    }
    return best ? [{ rule, ...best, unagedCounts, times: when.kind === 'changed' ? times : 1 }] : []
  })
}

function reliability(
  rule: FindingRule,
  { finding, isOld, measured }: Prepared,
  complaint: Complaint,
  school: School,
): Pick<AppliedRule, 'counts' | 'unagedCounts' | 'less'> {
  let unagedCounts = 1
  let less: AppliedRule['less'] = null
  if (finding.kind === 'seen') {
    const opposite = 'side' in rule.when
    if (!opposite && areOppositeSides(finding.side, complaint.side)) {
      unagedCounts *= OTHER_SIDE_COUNTS
      less = 'otherSide'
    }
    if (measured && !bearsOut(measured, school)) {
      unagedCounts *= NOT_BORNE_OUT_COUNTS
      less = 'notBorneOut'
    }
    if (finding.held) {
      unagedCounts *= HELD_COUNTS
      less = 'held'
    }
  }
  if (isOfOtherType(finding) && isOfBike(finding)) {
    unagedCounts *= OTHER_TYPE_COUNTS
    less = 'otherType'
  }
  return isOld
    ? { counts: unagedCounts * BEFORE_CHANGE_COUNTS, unagedCounts, less: 'beforeChange' }
    : { counts: unagedCounts, unagedCounts, less }
}

/** Whether an instrument's reading goes the way the note saw it: beyond the school's window on that side. */
function bearsOut({ reading, way }: NonNullable<Prepared['measured']>, school: School): boolean {
  const off =
    reading.kind === 'kneeAngle'
      ? offWindow(reading.deg, school.kneeWindowDeg)
      : reading.kind === 'plumb'
        ? offWindow(reading.mm, plumbWindowMm(school))
        : 0
  return Math.sign(off) === way
}

const isOfBike = ({ kind }: Known): boolean => (INVALIDATED_BY_CHANGE.bike as string[]).includes(kind)

/** A rule that applies to two complaints is listed once, where its weight is greatest. */
function uniqueRules(spoken: readonly AppliedRule[]): AppliedRule[] {
  const byRule = new Map<string, AppliedRule>()
  for (const one of spoken) {
    const known = byRule.get(one.rule.rule)
    if (!known || known.counts < one.counts) byRule.set(one.rule.rule, one)
  }
  const power = ({ rule, counts }: AppliedRule) => counts * Math.log(FINDING_FACTOR[rule.strength])
  return [...byRule.values()].toSorted((a, b) => power(b) - power(a) || (a.rule.rule < b.rule.rule ? -1 : 1))
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0)

/** The sign of a class note, for its sentence. */
export const observedSignOf = (finding: Extract<Finding, { kind: 'seen' }>) =>
  signNamed(seenSign(finding.region, finding.what)?.sign ?? '')
