import type { BikeType } from '../../bikes/bike/bike'
import { causeRow, complaintRow, type Cause, type FindingRule } from '../../comfort/model/causeTable'
import type { Change, Expected, Proposal } from '../../comfort/changes/changeTypes'
import type { Conflict, Deciding, Explanation, WhyNoChange } from '../../comfort/weighing/explain'
import type { RedFlagReason } from '../../comfort/model/redFlags'
import type { Finding } from '../../comfort/model/request'
import { observedSignOf, type AppliedRule, type Weighed } from '../../comfort/weighing/weigh'
import { REFERRAL } from '../../classes/watch/comfort'
import { formatSign } from '../../classes/watch/signs'
import { formatLabel, formatSteps } from '../words/labels'
import {
  AXIS_NAME,
  asSentence,
  capitalized,
  formatAgo,
  formatDegrees,
  formatHalfMm,
  formatLength,
  formatList,
  formatNaturalFrequency,
  formatAgainstSaddle,
  formatPlumb,
  lowered,
} from '../words/phrases'

export const FLAG_TEXT: Readonly<Record<RedFlagReason, string>> = {
  chest: 'chest pain',
  breath: 'trouble breathing',
  faint: 'fainting',
  calfSwelling: 'a painful, swollen calf',
  abdomen: 'pain in the belly',
  leftOnEffort: 'the left shoulder, arm or neck on hard efforts',
  sharp: 'sharp pain',
  growing: 'pain that grows',
  night: 'pain at night',
  locking: 'a joint that locks',
  givingWay: 'a joint that gives way',
  swelling: 'swelling',
  severe: 'pain of 8 or more of 10',
  numbLasts: 'numbness that outlasts the ride',
  backWithNumbFoot: 'a low back that lasts, with a numb foot',
  oneSideLasts: 'pain on one side that lasts',
  sideUnknown: 'pain that lasts, its side not told',
  pregnancy: 'a complaint in pregnancy',
  recentOperation: 'a recent operation',
  heart: 'a heart condition',
}

const MEASUREMENT_TEXT: Readonly<Partial<Record<Finding['kind'], string>>> = {
  kneeAngle: 'Measure the knee angle',
  plumb: 'Hang the plumb line',
  tilt: 'Measure the saddle’s tilt',
  barsAgainstSaddle: 'Measure the bars against the saddle',
  elbows: 'Look at the elbows',
  rocking: 'Look at the hips from behind',
  viewAngle: 'Look where instructor and screen lie from this bike',
  reachFeel: 'Ask how the reach feels',
}

const LESS_TEXT: Readonly<Record<NonNullable<AppliedRule['less']>, string>> = {
  otherType: 'seen on another type of bike: counts less',
  beforeChange: 'found before what was changed since: counts less',
  otherSide: 'seen on the other side: counts less',
  held: 'it answered to a cue: counts less',
  notBorneOut: 'the instrument does not bear it out: counts less',
}

/** Why a rule speaks: what was found, with its figure, and why it counts less where it does. */
export function formatSpoken({ rule, finding, less }: AppliedRule): string {
  return [foundText(rule, finding), ...(less ? [LESS_TEXT[less]] : [])].join(', ')
}

function foundText(rule: FindingRule, finding: Finding | undefined): string {
  switch (finding?.kind) {
    case 'seen': {
      const sign = observedSignOf(finding)
      const words = sign ? formatSign(sign) : finding.what
      const side = finding.side && finding.side !== 'both' && sign?.sided ? `, ${finding.side}` : ''
      return rule.say ? `${words}${side}: ${rule.say}` : `${words}${side}`
    }
    case 'kneeAngle':
      return `${rule.say} (${formatDegrees(finding.deg)})`
    case 'tilt':
      return `${rule.say} (${Number(finding.deg.toFixed(1))}°)`
    case 'plumb':
      return `${rule.say} (${formatPlumb(finding.mm, 'metric')})`
    case 'barsAgainstSaddle':
      return `${rule.say} (${formatAgainstSaddle(finding.mm, 'metric')})`
    case 'viewAngle':
      return `${rule.say} (${formatDegrees(Math.abs(finding.deg))})`
    case 'cadence':
      return `${rule.say} (${Math.round(finding.rpm)} turns)`
    case 'changed':
      return `${rule.say}, ${formatAgo(finding.daysAgo)}`
    case 'trunkAngle':
    case 'footPitch':
      return `${rule.say} (${formatDegrees(finding.deg)})`
    case 'forearmGauge':
    case 'saddleLine':
      return `${rule.say} (${formatLength(finding.mm)})`
    default:
      return rule.say
  }
}

/** What speaks for a cause: why it fits the complaint, then what was found. */
export function formatFor({ cause, for: pro }: Weighed, complaints: Explanation['complaints']): string[] {
  const why = complaints.flatMap(({ what }) =>
    complaintRow(what)
      .causes.filter((row) => row.cause === cause)
      .map((row) => row.why.replace(/\.$/, '')),
  )
  return [...new Set([...why, ...grouped(pro).map(capitalized)])]
}

export const formatAgainst = ({ cause, against }: Weighed, tried: readonly Cause[] = []): string[] => [
  ...(tried.includes(cause) ? ['It was on trial for this, and did not help'] : []),
  ...grouped(against).map(capitalized),
]

/** "The knee bends more than it should (41°)": a stronger rule of the same finding adds "by far" to it. */
function grouped(spoken: readonly AppliedRule[]): string[] {
  const texts = spoken.filter(({ rule }) => rule.say !== BY_FAR)
  return texts.map((one) => {
    const far = spoken.some(({ rule, finding }) => rule.say === BY_FAR && finding === one.finding)
    return far && one.finding ? formatSpoken(one).replace(' (', ', by far (') : formatSpoken(one)
  })
}
const BY_FAR = 'by far'

export function formatDeciding({ kind, between }: Deciding): string {
  const names = between.slice(0, 2).map((cause) => causeRow(cause).name)
  return `${MEASUREMENT_TEXT[kind]} first: it decides between “${names[0]}” and “${names[1]}”.`
}

export const formatCheck = (cause: Cause): string => capitalized(causeRow(cause).check)

export function formatConflict(conflict: Conflict): string {
  if (conflict.kind === 'contradiction')
    return `${MEASUREMENT_TEXT[conflict.of] ?? 'Look'} again: what was found does not go together.`
  const [a, b] = conflict.complaints.map((what) => complaintRow(what).name)
  const [one, other] = conflict.causes.map((cause) => causeRow(cause).remedy)
  return `${capitalized(a)} and ${b} ask for opposite changes: ${one}, or ${other}. Settle the stronger one first.`
}

/** "Raise the seat one mark, 7 to 8 (20 mm, a large step)"; without marks "Raise the seat by 5 mm". */
export function formatChange(change: Change, bikeType?: BikeType): string {
  const { axis, direction, from, to, mm, deg, large } = change
  if (axis === 'tilt') return `${direction === 'up' ? 'Lift' : 'Lower'} the saddle’s nose by ${Math.abs(deg ?? 1)}°`
  if (axis === 'crankLength')
    return `Take cranks of ${to ?? ''} in place of ${from ?? ''} (${formatHalfMm(mm ?? 0)} shorter)`
  const verb = axis === 'seatHeight' || axis === 'barHeight' ? (direction === 'up' ? 'Raise' : 'Lower') : 'Move'
  const what = { seatHeight: 'the seat', barHeight: 'the bars', seatSlide: 'the saddle', barSlide: 'the bars' }[axis]
  const way =
    axis === 'barSlide' ? (direction === 'back' ? ' nearer' : ' away') : verb === 'Move' ? ` ${direction}` : ''
  const size = `${formatLength(mm ?? 0)}${large ? ', a large step' : ''}`
  if (!bikeType || from === undefined || to === undefined) return `${verb} ${what}${way} by ${size}`
  const { scale } = bikeType.axes[axis]!
  const marks = `${formatLabel(bikeType, axis, from)} to ${formatLabel(bikeType, axis, to)}`
  const steps = formatSteps(scale, from, to, mm ?? 0, 'metric')
  // A step that is a length already appears once.
  const beside = 'ruler' in scale ? (large ? ' (a large step)' : '') : ` (${size})`
  return `${verb} ${what}${way} ${steps}, ${marks}${beside}`
}

export function formatExpected({ check, to, by }: Expected): string {
  switch (check) {
    case 'kneeFlexion':
      if (to !== undefined) return `the knee should read about ${formatDegrees(to)}`
      return `the knee should bend about ${formatDegrees(Math.abs(by))} ${by < 0 ? 'less' : 'more'}`
    case 'plumb':
      if (to !== undefined)
        return `the plumb line about ${formatLength(to)} ${to < 0 ? 'behind' : 'ahead of'} the pedal`
      return `the knee should hang about ${formatLength(by)} further ${by < 0 ? 'back' : 'forward'}`
    case 'barAgainstSaddle':
      if (to !== undefined) return `the bars about ${formatLength(to)} ${to < 0 ? 'below' : 'above'} the saddle`
      return `the bars about ${formatLength(by)} ${by < 0 ? 'lower' : 'higher'} against the saddle`
    case 'tilt':
      return `the board should read about ${Number((to ?? 0).toFixed(1))}°`
  }
}

/** How a trial goes, for every change proposed. */
export const TRIAL_TEXT =
  'Leave it so for a week or two and at least two rides; it may feel odd at first, because the body learned the old ' +
  'place. Keep the old number to go back to.'
/** Said beside a change that is not of this rider's numbers alone. */
const SHARED_TEXT: Readonly<Partial<Record<Change['axis'], string>>> = {
  tilt: ' The saddle is shared: this changes it for everybody who rides this bike.',
  crankLength:
    ' Both pedals go over, left thread on the left; the seat then goes up by as much where the knee asks for it.',
}

export function formatProposal({ change, expect, orSlide }: Proposal, bikeType?: BikeType): string {
  const telling = expect.filter(
    ({ check, by }) => Math.abs(by) >= (check === 'kneeFlexion' ? 0.5 : check === 'tilt' ? 0 : 3),
  )
  const reads = telling.length > 0 ? `: ${formatList(telling.map(formatExpected))}` : ''
  const slide = orSlide
    ? ` The marks are far apart: ${lowered(formatChange(orSlide, bikeType))} is the smaller step.`
    : ''
  return `${formatChange(change, bikeType)}${reads}.${slide}${SHARED_TEXT[change.axis] ?? ''}`
}

/** Why nothing is changed, and what to do instead, in one or two sentences. */
export function formatNoChange(why: WhyNoChange, { causes }: Pick<Explanation, 'causes'>): string {
  const look = causes.length > 0 ? ` ${asSentence(causeRow(causes[0].cause).check)}` : ''
  switch (why.code) {
    case 'allGood':
      return 'All readings are good, so nothing is moved. Look at load, feet and kit, and again in the ' + 'warm-up.'
    case 'opposite':
      return 'Two complaints ask for opposite changes: nothing is moved until one is settled.'
    case 'unsure':
      return `No cause is likely enough to move anything.${look}`
    case 'tried':
      return 'Its change was on trial and did not help: look further before anything is moved.'
    case 'measureFirst':
      return `${MEASUREMENT_TEXT[why.measure]} first: nothing is moved unmeasured.`
    case 'alreadyRight':
      return `The ${partOf(why.axis)} was read to be right, and stays.${look}`
    case 'wouldWorsen':
      return `The ${partOf(why.axis)} stays: moving it would make ${WORSE_TEXT[why.check]} worse.${look}`
    case 'lacksAxis':
      return `This bike has no ${partOf(why.axis)}: offer another type of bike.`
    case 'atEnd':
      return `The ${partOf(why.axis)} stands at its end here: offer another type of bike.`
    case 'notOfAnAxis':
      return causes.length > 0 ? asSentence(causeRow(causes[0].cause).remedy) : ''
  }
}

/** The same as a heading. */
export function formatNoChangeTitle({
  code,
  measure,
}: Readonly<{ code: WhyNoChange['code']; measure?: Finding['kind'] }>): string | null {
  switch (code) {
    case 'measureFirst':
      return measure ? `${MEASUREMENT_TEXT[measure]} first` : 'Measure first'
    case 'allGood':
      return 'Nothing to move'
    case 'opposite':
      return 'Settle one complaint first'
    case 'unsure':
      return 'Look before anything is moved'
    case 'alreadyRight':
    case 'wouldWorsen':
      return 'Leave the bike as it is'
    case 'lacksAxis':
    case 'atEnd':
      return 'Offer another type of bike'
    case 'tried':
      return 'Look further first'
    case 'notOfAnAxis':
      return null
  }
}

const WORSE_TEXT: Readonly<Record<Extract<WhyNoChange, { code: 'wouldWorsen' }>['check'], string>> = {
  kneeFlexion: 'the knee',
  plumb: 'the knee over the pedal',
  barAgainstSaddle: 'the bars against the saddle',
  tilt: 'the tilt',
  reach: 'the reach',
  clearance: 'the room for the knees',
}

const partOf = (axis: Change['axis']): string => (axis === 'tilt' ? 'saddle’s tilt' : AXIS_NAME[axis])

/** Why a rider is referred, and the words to them; a missing side comes first. */
export function formatReferral(
  referred: Explanation['referred'],
): Readonly<{ why: string; say: string; askFirst?: string }> | undefined {
  if (referred.length === 0) return undefined
  const flags = [...new Set(referred.flatMap((one) => one.flags))]
  return {
    why: capitalized(formatList(flags.map((flag) => FLAG_TEXT[flag]))),
    say: REFERRAL,
    ...(flags.includes('sideUnknown') && { askFirst: SIDE_QUESTION }),
  }
}
const MAX_FLAGS_SPOKEN = 2
const SIDE_QUESTION = 'Ask which side, left, right or both, before anything else.'
const CLINICIAN_FIRST_TEXT = 'Pregnant: their clinician’s word comes first.'

/** One sentence to read aloud. */
export function formatExplanation(explanation: Explanation, bikeType?: BikeType): string {
  const { referred, causes, proposal, noChange, deciding, clinicianFirst } = explanation
  const refer = formatReferral(referred)
  if (refer) {
    const question = refer.askFirst ? `${refer.askFirst} ` : ''
    // Spoken, the gravest are enough; `why` lists all.
    const gravest = [...new Set(referred.flatMap(({ flags }) => flags))].slice(0, MAX_FLAGS_SPOKEN)
    const why = formatList(gravest.map((flag) => FLAG_TEXT[flag]))
    return `${question}No change: ${why} ${gravest.length > 1 ? 'are' : 'is'} not settled on a bike. ${REFERRAL}`
  }
  if (causes.length === 0) return 'Nothing here points to the bike.'
  const [first] = causes
  const likely = `Likeliest: ${causeRow(first.cause).name} (${formatNaturalFrequency(first.weight)}).`
  const decides = deciding.find(({ between }) => between.slice(0, 2).includes(first.cause))
  const step = proposal
    ? formatProposal(proposal, bikeType)
    : [
        ...(decides && noChange?.code !== 'measureFirst' && noChange?.code !== 'allGood'
          ? [formatDeciding(decides)]
          : []),
        ...(noChange ? [formatNoChange(noChange, explanation)] : []),
      ].join(' ')
  return [...(clinicianFirst ? [CLINICIAN_FIRST_TEXT] : []), likely, step].join(' ')
}
