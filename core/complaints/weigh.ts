import { assessTilt } from '../bike/tilt'
import { barPostureFor, barWindowMm } from '../school/barPosture'
import { PLUMB_WINDOW_MM, type School } from '../school/school'
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
/** How far a note counts that an instrument does not bear out: an instrument outranks a note. Ours. */
const NOT_BORNE_OUT_COUNTS = 0.25
/**
 * Readings of one kind that differ by more than this without a recorded change speak for a slip: some three standard
 * deviations of a difference (2° a knee angle, 6 mm a plumb line; `measurementNoise`).
 */
const DRIFT_FROM = { kneeAngle: 8, plumb: 25 } as const

/**
 * What older findings spoke against becomes at most so much likelier by a change: never more than what the change
 * itself points to, or a change would lower the weight of its own causes.
 */
const MOST_FREED = FINDING_FACTOR.strong

const BARS_SEEN = ['elbows', 'reachFeel', 'clearance', 'trunkAngle', 'forearmGauge'] as const
const HEIGHT_SEEN = ['rocking', 'heelCheck', 'footPitch', 'kneeByEye'] as const
/** Which findings a change makes old. */
const AGES: Readonly<Record<Extract<Finding, { kind: 'changed' }>['what'], readonly Finding['kind'][]>> = {
  numbers: ['kneeAngle', 'plumb', 'barsAgainstSaddle', ...BARS_SEEN, ...HEIGHT_SEEN],
  bike: ['kneeAngle', 'plumb', 'tilt', 'saddleLine', 'barsAgainstSaddle', ...BARS_SEEN, ...HEIGHT_SEEN],
  saddle: ['kneeAngle', 'plumb', 'tilt', 'saddleLine', ...HEIGHT_SEEN],
  shoes: ['kneeAngle', 'plumb', ...HEIGHT_SEEN],
  cleats: ['kneeAngle', 'plumb', ...HEIGHT_SEEN],
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
  less: 'otherType' | 'beforeChange' | 'otherSide' | 'held' | 'notBorneOut' | null
}>

export type Weighed = Readonly<{
  cause: Cause
  /** Share of all causes, 0–1; weights add to 1. */
  weight: number
  /** Rules for and against it, the strongest first. */
  for: readonly Spoken[]
  against: readonly Spoken[]
}>

/**
 * A reading that differs from an older one of its kind although nothing was changed between them: newest less older.
 */
export type Drift = Readonly<{ kind: 'drift'; of: 'kneeAngle' | 'plumb'; by: number; daysAgo?: number }>
type Known = Finding | Drift

/** Findings as they are looked up: by kind, notes by their sign; whether what they were found on was changed since. */
type Prepared = Readonly<{
  finding: Known
  isOld: boolean
  /** An instrument's reading that holds of what this note saw, and which way the note goes. */
  measured?: Readonly<{ reading: Known; way: 1 | -1 }>
}>
export type KnownFindings = ReadonlyMap<string, readonly Prepared[]>

const keyOf = (finding: Known): string =>
  finding.kind === 'seen' ? `seen ${seenSign(finding.region, finding.what)?.sign}` : finding.kind

const daysOf = ({ daysAgo = 0 }: Known): number => daysAgo
const isOfOtherType = (finding: Known): boolean => 'otherType' in finding && finding.otherType === true

/**
 * The findings that speak: of readings and looks of one kind only the newest, those of this type of bike before others;
 * notes and changes all. An older reading that differs, with nothing changed in between, speaks for a slip instead.
 */
export function prepareFindings(findings: readonly Finding[]): KnownFindings {
  const changes = findings.filter((one) => one.kind === 'changed')
  const changedAfter = (finding: Known): boolean =>
    changes.some(({ what, daysAgo }) => (AGES[what] as string[]).includes(finding.kind) && daysOf(finding) > daysAgo)
  const byKind = new Map<string, Finding[]>()
  for (const finding of findings) byKind.set(keyOf(finding), [...(byKind.get(keyOf(finding)) ?? []), finding])
  const known = new Map<string, Prepared[]>()
  for (const [key, all] of byKind) {
    const speaking = all[0].kind === 'seen' || all[0].kind === 'changed' ? all : newestOf(all)
    known.set(
      key,
      speaking.map((finding) => ({ finding, isOld: finding.kind !== 'changed' && changedAfter(finding) })),
    )
  }
  const drifts = (['kneeAngle', 'plumb'] as const).flatMap((kind) => driftOf(byKind.get(kind) ?? [], kind, changes))
  if (drifts.length > 0)
    known.set(
      'drift',
      drifts.map((finding) => ({ finding, isOld: false })),
    )
  return withInstruments(known)
}

/** The newest of a kind on this type of bike; of another type only where there is none. Of one age all. */
function newestOf(all: readonly Finding[]): Finding[] {
  const own = all.filter((one) => !isOfOtherType(one))
  const from = own.length > 0 ? own : all
  const newest = Math.min(...from.map(daysOf))
  return from.filter((one) => daysOf(one) === newest)
}

function driftOf(
  all: readonly Finding[],
  of: Drift['of'],
  changes: readonly Extract<Finding, { kind: 'changed' }>[],
): Drift[] {
  const own = all.filter((one) => !isOfOtherType(one)).toSorted((a, b) => daysOf(a) - daysOf(b))
  const newest = own.at(0)
  if (!newest) return []
  const valueOf = (one: Finding) => (one.kind === 'kneeAngle' ? one.deg : one.kind === 'plumb' ? one.mm : 0)
  const between = (older: Finding) =>
    changes.some(({ daysAgo }) => daysAgo >= daysOf(newest) && daysAgo <= daysOf(older))
  const older = own.find((one) => daysOf(one) > daysOf(newest))
  if (!older || between(older)) return []
  const by = valueOf(newest) - valueOf(older)
  return Math.abs(by) > DRIFT_FROM[of] ? [{ kind: 'drift', of, by, daysAgo: daysOf(newest) }] : []
}

/** Signs that an instrument measures too: where it holds and says otherwise, the note counts less. */
const MEASURED_SIGNS = [
  { sign: 'deepBend', by: 'kneeAngle', way: 1 },
  { sign: 'locked', by: 'kneeAngle', way: -1 },
  { sign: 'aheadOfToes', by: 'plumb', way: 1 },
] as const

function withInstruments(known: Map<string, Prepared[]>): KnownFindings {
  for (const { sign, by, way } of MEASURED_SIGNS) {
    const notes = known.get(`seen ${sign}`)
    const reading = known.get(by)?.find(({ finding, isOld }) => !isOld && !isOfOtherType(finding))?.finding
    if (notes && reading)
      known.set(
        `seen ${sign}`,
        notes.map((one) => ({ ...one, measured: { reading, way } })),
      )
  }
  return known
}

/** Findings that nothing was changed under since. */
export const findingsThatHold = (known: KnownFindings): Finding[] =>
  [...known.values()].flat().flatMap(({ finding, isOld }) => (isOld || finding.kind === 'drift' ? [] : [finding]))

/** What is known, and one measurement of today besides. */
const withMeasurement = (known: KnownFindings, finding: Finding): KnownFindings =>
  new Map(known).set(keyOf(finding), [{ finding, isOld: false }])

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
  asked: Asked,
  rules: readonly FindingRule[] = CAUSE_TABLE.findings,
): Spoken[] {
  const { known, experience } = asked
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
): Pick<Spoken, 'counts' | 'unagedCounts' | 'less'> {
  let unagedCounts = 1
  let less: Spoken['less'] = null
  if (finding.kind === 'seen') {
    const opposite = 'side' in rule.when
    if (!opposite && areOpposite(finding.side, complaint.side)) {
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

const isOfBike = ({ kind }: Known): boolean => (AGES.bike as string[]).includes(kind)

const areOpposite = (a: string | undefined, b: string | undefined): boolean =>
  (a === 'left' && b === 'right') || (a === 'right' && b === 'left')

/** How far a value lies beyond a window: plus above it, minus below, 0 within. */
export const offWindow = (value: number, [low, high]: readonly [number, number]): number =>
  value > high ? value - high : value < low ? value - low : 0

/**
 * Where the plumb line should fall, mm; a school without a plumb line guards against gross errors only, as the balance
 * school does.
 */
export const plumbWindowMm = ({ foreAft }: Pick<School, 'foreAft'>): readonly [number, number] =>
  PLUMB_WINDOW_MM[foreAft === 'unused' ? 'balance' : foreAft]

/** Where the bars belong against the saddle, mm, by school, health and experience; level where nothing was said. */
export function barsWindowMm({
  school,
  experience = 'regular',
  health = [],
}: Pick<Asked, 'school' | 'experience' | 'health'>): readonly [number, number] {
  const rider = { experience, pregnant: health.includes('pregnant') }
  return barWindowMm(school, barPostureFor(school, rider, undefined).posture)
}

/** Whether a finding of the rule's kind, and of its sign, is what the rule is about. */
function matches(when: When, found: Known, complaint: Complaint, asked: Asked): boolean {
  if (when.kind !== found.kind) return false
  const { school } = asked
  const finding = found as Finding
  switch (when.kind) {
    case 'kneeAngle': {
      const { deg } = finding as Extract<Finding, { kind: 'kneeAngle' }>
      const [low, high] = school.kneeWindowDeg
      if (when.side === 'within') return deg >= low && deg <= high
      return when.side === 'above' ? deg > high + when.by : deg < low - when.by
    }
    case 'plumb': {
      const off = offWindow((finding as Extract<Finding, { kind: 'plumb' }>).mm, plumbWindowMm(school))
      // Where the string guards against gross errors only, lying within says nothing of the slide.
      if (when.side === 'within') return off === 0 && (school.foreAft === 'plumb' || school.foreAft === 'midFoot')
      return when.side === 'ahead' ? off > when.by : -off > when.by
    }
    case 'barsAgainstSaddle': {
      const off = offWindow((finding as Extract<Finding, { kind: 'barsAgainstSaddle' }>).mm, barsWindowMm(asked))
      return when.side === 'below' ? -off > when.by : off >= 0
    }
    case 'viewAngle':
      return within(when, Math.abs((finding as Extract<Finding, { kind: 'viewAngle' }>).deg))
    case 'saddleLine':
      return within(when, Math.abs((finding as Extract<Finding, { kind: 'saddleLine' }>).mm))
    case 'forearmGauge':
      return within(when, (finding as Extract<Finding, { kind: 'forearmGauge' }>).mm)
    case 'footPitch':
    case 'trunkAngle':
      return within(when, (finding as Extract<Finding, { kind: 'trunkAngle' }>).deg)
    case 'tilt':
      return tiltOutcome(finding as Extract<Finding, { kind: 'tilt' }>, school) === when.outcome
    case 'heelCheck': {
      const { seen } = finding as Extract<Finding, { kind: 'heelCheck' }>
      // A natural foot fails the heel check at a height that is right: only schools that go by it hear it.
      const counts = school.heelCheck === 'target' || (school.heelCheck === 'ceiling' && seen === 'cannotReach')
      return counts && seen === when.seen
    }
    case 'elbows':
    case 'reachFeel':
    case 'clearance':
    case 'kneeByEye':
      return (finding as Extract<Finding, { kind: 'elbows' }>).seen === when.seen
    case 'build': {
      const { torso, heavyUpperBody, tightHips } = finding as Extract<Finding, { kind: 'build' }>
      return {
        longTorso: torso === 'long',
        shortTorso: torso === 'short',
        heavyUpperBody: heavyUpperBody === true,
        tightHips: tightHips === true,
      }[when.of]
    }
    case 'drift': {
      const { of, by } = found as Drift
      return of === when.of && (when.way === 'either' || (when.way === 'up') === by > 0)
    }
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

/** A saddle's tilt, judged by its shape, how the board lay and the studio's school. */
export const tiltOutcome = (reading: Extract<Finding, { kind: 'tilt' }>, school: School) =>
  tiltAssessment(reading, school).outcome
export const tiltAssessment = (
  { deg, shape = 'flat', across = 'highestPoints' }: Extract<Finding, { kind: 'tilt' }>,
  school: Pick<School, 'tilt'>,
) => assessTilt({ deg, floorDeg: 0, across }, shape, school.tilt)

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
