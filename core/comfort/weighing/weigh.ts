import type { School } from '../../base/school/school'
import { signNamed } from '../../classes/watch/signs'
import {
  CAUSE_TABLE,
  CAUSES,
  complaintRow,
  FINDING_FACTOR,
  SUSPICION_ODDS,
  type Cause,
  type FindingRule,
} from '../model/causeTable'
import type { Complaint, ExplainRequest, Finding } from '../model/request'
import {
  INVALIDATED_BY_CHANGE,
  isOfOtherType,
  withMeasurement,
  type FindingOrDrift,
  type FindingIndex,
  type Prepared,
} from '../findings/findingIndex'
import { areOppositeSides, matches } from './ruleMatches'
import { seenSign } from '../findings/seenSign'
import { offWindow, plumbWindowMm } from '../model/windows'

/** Factor of the odds of a cause for each other complaint it explains. Assumption. */
const SHARED_BY_COMPLAINTS = 1.6
/** How far a finding from a bike of another type exponent, as an exponent of its factor; ours. */
const OTHER_TYPE_EXPONENT = 0.4
/** How far a finding exponent that is older than a change of what it was found on; ours. */
const BEFORE_CHANGE_EXPONENT = 0.3
/** How far a note exponent that was seen on the other side than the complaint's; ours. */
const OTHER_SIDE_EXPONENT = 0.4
/** Exponent of a note whose cue worked: a habit is weaker evidence for other causes. Assumption. */
const ANSWERED_EXPONENT = 0.6
/** How far a note exponent that an instrument does not bear out: an instrument outranks a note. Ours. */
const NOT_BORNE_OUT_EXPONENT = 0.25
/**
 * Maximum factor by which discounting older counter-evidence after a change raises a cause: not more than the change's
 * own factor, or a change would lower the weight of its own causes.
 */
const MAX_RELEASED_FACTOR = FINDING_FACTOR.strong

/** A rule that speaks: how far it exponent (0–1), by which finding, and why it exponent less. */
export type AppliedRule = Readonly<{
  rule: FindingRule
  exponent: number
  /** The exponent without the discount for findings older than a change. */
  exponentBeforeAging: number
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

export type WeighingInputs = Pick<ExplainRequest, 'complaints' | 'experience' | 'health'> &
  Readonly<{
    findingIndex: FindingIndex
    school: School
    /** Causes whose change was on trial for these complaints and did not help: as a strong finding against them. */
    tried: readonly Cause[]
  }>

/**
 * Causes by weight, heaviest first: for each complaint the odds of its causes times the factor of every rule that
 * applies (a log-linear model, as naive Bayes without normalised likelihoods), normalised, then mixed by how strong the
 * complaints are. A rule exponent once, by the finding that exponent most; a change exponent every time. Empty where no
 * complaint has causes.
 */
export function weighCauses(inputs: WeighingInputs): Weighed[] {
  const { perComplaint, weights } = weigh(inputs)
  // The same rules apply to causes of the same complaints.
  const appliedTo = new Map<string, AppliedRule[]>()
  return [...weights]
    .map(([cause, weight]): Weighed => {
      const of = perComplaint.filter((one) => one.weights.has(cause))
      const key = of.map((one) => perComplaint.indexOf(one)).join()
      const applied = appliedTo.get(key) ?? uniqueRules(of.flatMap((one) => one.applied))
      appliedTo.set(key, applied)
      return {
        cause,
        weight,
        for: applied.filter(({ rule }) => rule.for.includes(cause)),
        against: applied.filter(({ rule }) => rule.against.includes(cause)),
      }
    })
    .toSorted((a, b) => b.weight - a.weight || CAUSES.indexOf(a.cause) - CAUSES.indexOf(b.cause))
}

/**
 * The leading cause if this were measured too; null where no complaint has causes. Re-evaluates only the rules about
 * that measurement.
 */
export function leadingCauseWith(inputs: WeighingInputs): (measured: Finding) => Cause | null {
  const complaints = answerable(inputs)
  const appliedBefore = complaints.map((complaint) => applicableRules(complaint, inputs))
  return (measured) => {
    const findingIndex = withMeasurement(inputs.findingIndex, measured)
    const { weights } = weigh(inputs, (complaint, i) => [
      ...appliedBefore[i].filter(({ rule }) => rule.when.kind !== measured.kind),
      ...applicableRules(complaint, { ...inputs, findingIndex }, RULES_ABOUT.get(measured.kind) ?? []),
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
export const causeWeights = (inputs: WeighingInputs): ReadonlyMap<Cause, number> => weigh(inputs).weights

const RULES_ABOUT = new Map<string, readonly FindingRule[]>(
  [...new Set(CAUSE_TABLE.findings.map(({ when }) => when.kind))].map((kind) => [
    kind,
    CAUSE_TABLE.findings.filter(({ when }) => when.kind === kind),
  ]),
)

const answerable = ({ complaints }: WeighingInputs): Complaint[] =>
  complaints.filter(({ what }) => complaintRow(what).causes.length > 0)

function weigh(
  inputs: WeighingInputs,
  rulesOf: (complaint: Complaint, i: number) => AppliedRule[] = (complaint) => applicableRules(complaint, inputs),
) {
  const complaints = answerable(inputs)
  const perComplaint = complaints.map((complaint, i) => weighOne(complaint, complaints, inputs, rulesOf(complaint, i)))
  const weights = new Map<Cause, number>()
  const shares = sharesOf(complaints)
  perComplaint.forEach((one, i) => {
    for (const [cause, weight] of one.weights) weights.set(cause, (weights.get(cause) ?? 0) + weight * shares[i])
  })
  return { perComplaint, weights }
}

/**
 * How much each complaint exponent, adding to 1: by its strength, and by how many causes share its suspicion, so that
 * the likeliest cause of a complaint with few causes does not outweigh that of a stronger one with many.
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

function weighOne(
  complaint: Complaint,
  all: readonly Complaint[],
  inputs: WeighingInputs,
  applied: readonly AppliedRule[],
) {
  const others = [...new Set(all.map(({ what }) => what))].filter((what) => what !== complaint.what)
  const odds = complaintRow(complaint.what).causes.map(({ cause, suspicion }) => {
    const shared = others.filter((what) => explains(what, cause)).length
    let value = SUSPICION_ODDS[suspicion] * SHARED_BY_COMPLAINTS ** shared
    if (inputs.tried.includes(cause)) value /= FINDING_FACTOR.strong
    let released = 1
    for (const { rule, exponent, exponentBeforeAging, times } of applied) {
      const factor = FINDING_FACTOR[rule.strength]
      if (rule.for.includes(cause)) value *= exponent * times === 1 ? factor : factor ** (exponent * times)
      if (!rule.against.includes(cause)) continue
      value /= exponentBeforeAging === 1 ? factor : factor ** exponentBeforeAging
      if (exponentBeforeAging !== exponent) released *= factor ** (exponentBeforeAging - exponent)
    }
    return [cause, value * Math.min(released, MAX_RELEASED_FACTOR)] as const
  })
  const total = sum(odds.map(([, value]) => value))
  return { applied, weights: new Map(odds.map(([cause, value]) => [cause, value / total])) }
}

const explains = (what: Complaint['what'], cause: Cause): boolean =>
  complaintRow(what).causes.some((row) => row.cause === cause)

const FULL_WEIGHT = { exponent: 1, exponentBeforeAging: 1, times: 1, finding: undefined, less: null } as const

/** Every rule that speaks of a complaint, once each, by the finding that exponent most. */
function applicableRules(
  complaint: Complaint,
  inputs: WeighingInputs,
  rules: readonly FindingRule[] = CAUSE_TABLE.findings,
): AppliedRule[] {
  const { findingIndex, experience } = inputs
  return rules.flatMap((rule): AppliedRule[] => {
    const { when } = rule
    if (when.kind === 'complaint') {
      const applies =
        'side' in when
          ? when.side === (complaint.side === 'both' ? 'both' : complaint.side && 'one')
          : when.when === complaint.when
      return applies ? [{ rule, ...FULL_WEIGHT }] : []
    }
    if (when.kind === 'experience') return when.is === experience ? [{ rule, ...FULL_WEIGHT }] : []
    let best: Omit<AppliedRule, 'rule' | 'times' | 'exponentBeforeAging'> | null = null
    let exponentBeforeAging = 0
    let times = 0
    for (const one of findingIndex.get(when.kind === 'seen' ? `seen ${when.sign}` : when.kind) ?? []) {
      if (!matches(when, one.finding, complaint, inputs)) continue
      const reliabilityOfOne = reliability(rule, one, complaint, inputs.school)
      exponentBeforeAging = Math.max(exponentBeforeAging, reliabilityOfOne.exponentBeforeAging)
      times += 1
      if (!best || reliabilityOfOne.exponent > best.exponent)
        best = { finding: one.finding as Finding, exponent: reliabilityOfOne.exponent, less: reliabilityOfOne.less }
    }
    return best ? [{ rule, ...best, exponentBeforeAging, times: when.kind === 'changed' ? times : 1 }] : []
  })
}

function reliability(
  rule: FindingRule,
  { finding, isOld, measured }: Prepared,
  complaint: Complaint,
  school: School,
): Pick<AppliedRule, 'exponent' | 'exponentBeforeAging' | 'less'> {
  let exponentBeforeAging = 1
  let less: AppliedRule['less'] = null
  if (finding.kind === 'seen') {
    const opposite = 'side' in rule.when
    if (!opposite && areOppositeSides(finding.side, complaint.side)) {
      exponentBeforeAging *= OTHER_SIDE_EXPONENT
      less = 'otherSide'
    }
    if (measured && !bearsOut(measured, school)) {
      exponentBeforeAging *= NOT_BORNE_OUT_EXPONENT
      less = 'notBorneOut'
    }
    if (finding.held) {
      exponentBeforeAging *= ANSWERED_EXPONENT
      less = 'held'
    }
  }
  if (isOfOtherType(finding) && isOfBike(finding)) {
    exponentBeforeAging *= OTHER_TYPE_EXPONENT
    less = 'otherType'
  }
  return isOld
    ? { exponent: exponentBeforeAging * BEFORE_CHANGE_EXPONENT, exponentBeforeAging, less: 'beforeChange' }
    : { exponent: exponentBeforeAging, exponentBeforeAging, less }
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

const isOfBike = ({ kind }: FindingOrDrift): boolean => (INVALIDATED_BY_CHANGE.bike as string[]).includes(kind)

/** A rule that applies to two complaints is listed once, where its weight is greatest. */
function uniqueRules(applied: readonly AppliedRule[]): AppliedRule[] {
  const byRule = new Map<string, AppliedRule>()
  for (const one of applied) {
    const matched = byRule.get(one.rule.rule)
    if (!matched || matched.exponent < one.exponent) byRule.set(one.rule.rule, one)
  }
  const power = ({ rule, exponent }: AppliedRule) => exponent * Math.log(FINDING_FACTOR[rule.strength])
  return [...byRule.values()].toSorted((a, b) => power(b) - power(a) || (a.rule.rule < b.rule.rule ? -1 : 1))
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0)

/** The sign of a class note, for its sentence. */
export const observedSignOf = (finding: Extract<Finding, { kind: 'seen' }>) =>
  signNamed(seenSign(finding.region, finding.what)?.sign ?? '')
