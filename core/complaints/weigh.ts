import { assessTilt } from '../bike/tilt'
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
  type When,
} from './causeTable'
import type { Complaint, ExplainRequest, Finding } from './request'
import { seenSign } from './seenSign'

/** Each further complaint that a cause explains too makes it so much likelier for the others; ours. */
const SHARED_BY_COMPLAINTS = 1.6
/** How far a finding from a bike of another type counts, as an exponent of its factor; ours. */
const OTHER_TYPE_COUNTS = 0.4
/** How far a finding counts that is older than a change of what it was found on; ours. */
const BEFORE_CHANGE_COUNTS = 0.3
/** How far a note counts that was seen on the other side than the complaint's; ours. */
const OTHER_SIDE_COUNTS = 0.4
/** A note whose cue held was a habit: it points less to anything else. Ours. */
const HELD_COUNTS = 0.6

/**
 * What older findings spoke against becomes at most so much likelier by a change: never more than what the change
 * itself points to, or a change would lower the weight of its own causes.
 */
const MOST_FREED = FINDING_FACTOR.strong

/** Which findings a change makes old. */
const AGES: Readonly<Record<Extract<Finding, { kind: 'changed' }>['what'], readonly Finding['kind'][]>> = {
  numbers: ['kneeAngle', 'plumb', 'barsAgainstSaddle', 'elbows', 'rocking'],
  bike: ['kneeAngle', 'plumb', 'tilt', 'barsAgainstSaddle', 'elbows', 'rocking'],
  saddle: ['kneeAngle', 'plumb', 'tilt', 'rocking'],
  shoes: ['kneeAngle', 'plumb', 'rocking'],
  cleats: ['kneeAngle', 'plumb', 'rocking'],
}

/** A rule that speaks: how far it counts (0–1), by which finding, and why it counts less. */
export type Spoken = Readonly<{
  rule: FindingRule
  counts: number
  /** How far it would count had nothing been changed since. */
  unagedCounts: number
  /** Every change counts by itself; all else once. */
  times: number
  /** Undefined where the complaint or the rider's experience says it. */
  finding: Finding | undefined
  less: 'otherType' | 'beforeChange' | 'otherSide' | 'held' | null
}>

export type Weighed = Readonly<{
  cause: Cause
  /** Share of all causes, 0–1; weights add to 1. */
  weight: number
  /** Rules for and against it, the strongest first. */
  for: readonly Spoken[]
  against: readonly Spoken[]
}>

/** Findings as they are looked up: by kind, notes by their sign; whether what they were found on was changed since. */
type Prepared = Readonly<{ finding: Finding; isOld: boolean }>
export type KnownFindings = ReadonlyMap<string, readonly Prepared[]>

const keyOf = (finding: Finding): string =>
  finding.kind === 'seen' ? `seen ${seenSign(finding.region, finding.what)?.sign}` : finding.kind

export function prepareFindings(findings: readonly Finding[]): KnownFindings {
  const changes = findings.filter((one) => one.kind === 'changed')
  const known = new Map<string, Prepared[]>()
  for (const finding of findings) {
    const isOld =
      finding.kind !== 'changed' &&
      changes.some(({ what, daysAgo }) => AGES[what].includes(finding.kind) && (finding.daysAgo ?? 0) > daysAgo)
    const key = keyOf(finding)
    const there = known.get(key)
    if (there) there.push({ finding, isOld })
    else known.set(key, [{ finding, isOld }])
  }
  return known
}

/** Findings that nothing was changed under since. */
export const findingsThatHold = (known: KnownFindings): Finding[] =>
  [...known.values()].flat().flatMap(({ finding, isOld }) => (isOld ? [] : [finding]))

/** What is known, and one measurement of today besides. */
const withMeasurement = (known: KnownFindings, finding: Finding): KnownFindings =>
  new Map(known).set(keyOf(finding), [...(known.get(keyOf(finding)) ?? []), { finding, isOld: false }])

export type Asked = Pick<ExplainRequest, 'complaints' | 'experience'> &
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
  const heard = new Map<string, Spoken[]>()
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
 * Which cause would lead were this measured besides; null where no complaint has causes. Only rules about what is
 * measured are heard anew.
 */
export function leadingCauseWith(asked: Asked): (measured: Finding) => Cause | null {
  const complaints = answerable(asked)
  const heard = complaints.map((complaint) => spokenRules(complaint, asked))
  return (measured) => {
    const known = withMeasurement(asked.known, measured)
    const { weights } = weigh(asked, (complaint, i) => [
      ...heard[i].filter(({ rule }) => rule.when.kind !== measured.kind),
      ...spokenRules(complaint, { ...asked, known }, RULES_ABOUT.get(measured.kind) ?? []),
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
  hear: (complaint: Complaint, i: number) => Spoken[] = (complaint) => spokenRules(complaint, asked),
) {
  const complaints = answerable(asked)
  const total = sum(complaints.map(({ strength }) => strength))
  const perComplaint = complaints.map((complaint, i) => weighOne(complaint, complaints, asked, hear(complaint, i)))
  const weights = new Map<Cause, number>()
  perComplaint.forEach((one, i) => {
    const share = total > 0 ? complaints[i].strength / total : 1 / complaints.length
    for (const [cause, weight] of one.weights) weights.set(cause, (weights.get(cause) ?? 0) + weight * share)
  })
  return { perComplaint, weights }
}

function weighOne(complaint: Complaint, all: readonly Complaint[], asked: Asked, spoken: readonly Spoken[]) {
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
    return [cause, value * Math.min(freed, MOST_FREED)] as const
  })
  const total = sum(odds.map(([, value]) => value))
  return { spoken, weights: new Map(odds.map(([cause, value]) => [cause, value / total])) }
}

const explains = (what: Complaint['what'], cause: Cause): boolean =>
  complaintRow(what).causes.some((row) => row.cause === cause)

const TOLD = { counts: 1, unagedCounts: 1, times: 1, finding: undefined, less: null } as const

/** Every rule that speaks of a complaint, once each, by the finding that counts most. */
function spokenRules(
  complaint: Complaint,
  { known, experience, school }: Asked,
  rules: readonly FindingRule[] = CAUSE_TABLE.findings,
): Spoken[] {
  return rules.flatMap((rule): Spoken[] => {
    const { when } = rule
    if (when.kind === 'complaint') {
      const says =
        'side' in when
          ? when.side === (complaint.side === 'both' ? 'both' : complaint.side && 'one')
          : when.when === complaint.when
      return says ? [{ rule, ...TOLD }] : []
    }
    if (when.kind === 'experience') return when.is === experience ? [{ rule, ...TOLD }] : []
    let best: Omit<Spoken, 'rule' | 'times' | 'unagedCounts'> | null = null
    let unagedCounts = 0
    let times = 0
    for (const one of known.get(when.kind === 'seen' ? `seen ${when.sign}` : when.kind) ?? []) {
      if (!matches(when, one.finding, complaint, school)) continue
      const heard = reliability(rule, one, complaint)
      unagedCounts = Math.max(unagedCounts, heard.unagedCounts)
      times += 1
      if (!best || heard.counts > best.counts) best = { finding: one.finding, counts: heard.counts, less: heard.less }
    }
    return best ? [{ rule, ...best, unagedCounts, times: when.kind === 'changed' ? times : 1 }] : []
  })
}

function reliability(
  rule: FindingRule,
  { finding, isOld }: Prepared,
  complaint: Complaint,
): Pick<Spoken, 'counts' | 'unagedCounts' | 'less'> {
  let unagedCounts = 1
  let less: Spoken['less'] = null
  if (finding.kind === 'seen') {
    const opposite = 'side' in rule.when
    if (!opposite && areOpposite(finding.side, complaint.side)) {
      unagedCounts *= OTHER_SIDE_COUNTS
      less = 'otherSide'
    }
    if (finding.held) {
      unagedCounts *= HELD_COUNTS
      less = 'held'
    }
  }
  if (finding.kind !== 'changed' && finding.otherType && isOfBike(finding)) {
    unagedCounts *= OTHER_TYPE_COUNTS
    less = 'otherType'
  }
  return isOld
    ? { counts: unagedCounts * BEFORE_CHANGE_COUNTS, unagedCounts, less: 'beforeChange' }
    : { counts: unagedCounts, unagedCounts, less }
}

const isOfBike = ({ kind }: Finding): boolean => AGES.bike.includes(kind)

const areOpposite = (a: string | undefined, b: string | undefined): boolean =>
  (a === 'left' && b === 'right') || (a === 'right' && b === 'left')

/** Whether a finding of the rule's kind, and of its sign, is what the rule is about. */
function matches(when: When, finding: Finding, complaint: Complaint, school: School): boolean {
  if (when.kind !== finding.kind) return false
  switch (when.kind) {
    case 'kneeAngle': {
      const { deg } = finding as Extract<Finding, { kind: 'kneeAngle' }>
      const [low, high] = school.kneeWindowDeg
      if (when.side === 'within') return deg >= low && deg <= high
      return when.side === 'above' ? deg > high + when.by : deg < low - when.by
    }
    case 'plumb':
    case 'barsAgainstSaddle':
      return within(when, (finding as Extract<Finding, { kind: 'plumb' }>).mm)
    case 'viewAngle':
      return within(when, Math.abs((finding as Extract<Finding, { kind: 'viewAngle' }>).deg))
    case 'tilt': {
      const { deg, shape = 'flat' } = finding as Extract<Finding, { kind: 'tilt' }>
      return assessTilt({ deg, floorDeg: 0, across: 'highestPoints' }, shape, school.tilt).outcome === when.outcome
    }
    case 'elbows':
      return (finding as Extract<Finding, { kind: 'elbows' }>).seen === when.seen
    case 'rocking': {
      const { seen } = finding as Extract<Finding, { kind: 'rocking' }>
      return (seen === 'left' || seen === 'right' ? 'oneSide' : seen) === when.seen
    }
    case 'cadence': {
      const { load, rpm } = finding as Extract<Finding, { kind: 'cadence' }>
      return load === when.load && within(when, rpm)
    }
    case 'changed': {
      const { what, daysAgo } = finding as Extract<Finding, { kind: 'changed' }>
      return what === when.what && daysAgo <= when.below
    }
    case 'seen': {
      const { side } = finding as Extract<Finding, { kind: 'seen' }>
      return when.side === undefined || areOpposite(side, complaint.side)
    }
    default:
      return false
  }
}

function within(when: When, value: number): boolean {
  const {
    above = -Infinity,
    below = Infinity,
    from = -Infinity,
    to = Infinity,
  } = when as {
    above?: number
    below?: number
    from?: number
    to?: number
  }
  return value > above && value < below && value >= from && value <= to
}

/** A rule heard for two complaints is told once, where it counts most. */
function uniqueRules(spoken: readonly Spoken[]): Spoken[] {
  const byRule = new Map<string, Spoken>()
  for (const one of spoken) {
    const known = byRule.get(one.rule.rule)
    if (!known || known.counts < one.counts) byRule.set(one.rule.rule, one)
  }
  const power = ({ rule, counts }: Spoken) => counts * Math.log(FINDING_FACTOR[rule.strength])
  return [...byRule.values()].toSorted((a, b) => power(b) - power(a) || (a.rule.rule < b.rule.rule ? -1 : 1))
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0)

/** The sign a note of the class names, for what is said of it. */
export const signOf = (finding: Extract<Finding, { kind: 'seen' }>) =>
  signNamed(seenSign(finding.region, finding.what)?.sign ?? '')
