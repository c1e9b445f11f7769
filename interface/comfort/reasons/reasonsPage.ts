import { formatWider } from '@/core/messages/bikes/saddles'
import { causeRow, type Cause } from '@/core/comfort/model/causeTable'
import type { Change } from '@/core/comfort/changes/changeTypes'
import { COMPLAINT_OF_RED_FLAG } from '@/core/comfort/model/complaint'
import { exerciseNamed, type Exercise } from '@/core/comfort/exercises'
import { kitAdviceFor, type KitAdvice } from '@/core/comfort/changes/kit'
import { formatComplaint, formatWhen } from '@/core/messages/comfort/comfort'
import { FLAG_TEXT, formatChange, formatExpected, formatNoChangeTitle } from '@/core/messages/comfort/complaints'
import { formatMarks } from '@/core/messages/words/labels'
import { capitalized, formatLength, formatNaturalFrequency, lowered } from '@/core/messages/words/phrases'
import { formatBikeName } from '@/core/messages/bikes/bikeNames'
import { formatNote } from '@/core/messages/classes/watch'
import { redFlagNamed, REFERRAL } from '@/core/classes/watch/comfort'
import type { Reasons } from '@/server/pages/comfort/reasons'
import { formatDate } from '@/core/messages/words/dates'
import type { ComplaintInput } from '@/core/comfort/complaintInput'
import { subjectText, type SubjectText } from '../programme/programmeText'
import { trialSummary, type TrialSummary } from './trialSummary'

export type ComplaintSummary = Readonly<{
  id: string
  text: string
  when: string
  line: string
  from: string
  strength: number
  flags: readonly string[]
  /** A lasting pain whose side is unknown. */
  needsSide: boolean
  onTrial: boolean
  /** Content of a note from the floor without further details. */
  begun: Partial<ComplaintInput> | null
  handed: string | null
}>

export type CauseSummary = Readonly<{
  cause: string
  name: string
  share: number
  chance: string
  for: readonly string[]
  against: readonly string[]
  remedy: string
}>

export type ShownChange = Readonly<{
  shown: Readonly<{ axis: Change['axis']; to?: string; deg?: number }>
  text: string
  expects: readonly string[]
  large: boolean
}>

/** The page of reasons in words. */
export type ReasonsPage = Readonly<{
  /** Whether the rider agreed to notes, and the question otherwise. */
  agrees: boolean
  wording: string
  /** A limit that waits for a clinician's word, in words; null for none. */
  limitStop: string | null
  complaints: readonly ComplaintSummary[]
  flagged: readonly Readonly<{ id: string; text: string; begun: Partial<ComplaintInput> }>[]
  causes: readonly CauseSummary[]
  checks: readonly string[]
  conflicts: readonly string[]
  sentence: string | null
  remedy: string | null
  /** Why nothing is changed, as a heading; null beside a change. */
  noChange: string | null
  change: ShownChange | null
  /** Why the change serves its cause; null without one. */
  changeWhy: string | null
  orSlide: ShownChange | null
  touched: readonly string[]
  cue: string | null
  offBike: Readonly<{ words: string; exercise: Exercise | null }> | null
  /** Complaints that exercises can be given for; none while something is referred. */
  subjects: readonly SubjectText[]
  kit: readonly KitAdvice[]
  refer: string | null
  running: readonly TrialSummary[]
  past: readonly TrialSummary[]
  numbers: string | null
  bike: string | null
  bikeId: string | null
  saddleLine: string | null
  /** Another bike with a wider saddle, in a sentence; null for none. */
  wider: string | null
  referral: string
}>

/** Causes with less weight than this are not worth a line. */
const MIN_SHARE = 0.03
const MAX_CAUSES = 8
const SENT_ON_FIRST = 'Refer the rider first. Change nothing and decide nothing until that is over.'

export function reasonsPage(found: Reasons): ReasonsPage {
  const { timeZone, complaints, flagged, answer, onFile, trials, touched, referral, limitStop, agrees, wording } = found
  const type = onFile.entry?.type
  const asShown = (change: Change, expects: readonly string[]): ShownChange => ({
    shown: {
      axis: change.axis,
      ...(change.to !== undefined && { to: change.to }),
      ...(change.axis === 'tilt' && change.deg !== undefined && { deg: change.deg }),
    },
    text: formatChange(change, type),
    expects,
    large: change.large,
  })
  // During a referral, no advice on whether to end a trial.
  const summaries = trials
    .map((one) => trialSummary(one, timeZone))
    .map((one) => (answer?.refer ? { ...one, proposed: null, advice: SENT_ON_FIRST } : one))
  const off = answer?.offBike
  return {
    agrees,
    wording,
    limitStop,
    complaints: complaints.map((one) => ({
      id: one.id,
      text: formatComplaint(one),
      when: formatWhen(one),
      line: one.line,
      from: `${one.toldBy === 'member' ? 'From their page' : 'Heard in class'}, ${formatDate(one.createdAt, timeZone)}`,
      strength: one.strength,
      flags: one.flags.map((flag) => FLAG_TEXT[flag]),
      needsSide: one.flags.includes('sideUnknown'),
      onTrial: one.onTrial,
      begun: one.noteId === one.id ? { what: one.what, strength: one.strength, side: one.side } : null,
      handed: one.handedAt ? `${formatDate(one.handedAt, timeZone)}, told: ${one.handedTo}` : null,
    })),
    flagged: flagged.map((note) => ({
      id: note.id,
      text: `${capitalized(formatNote(note))}, ${formatDate(note.createdAt, timeZone)}`,
      begun: begunBy(note.region, note.side),
    })),
    causes: (answer?.causes ?? [])
      .filter(({ weight }) => weight >= MIN_SHARE)
      .slice(0, MAX_CAUSES)
      .map(({ cause, weight, for: pro, against }) => ({
        cause,
        name: capitalized(causeRow(cause).name),
        share: weight,
        chance: formatNaturalFrequency(weight),
        for: pro,
        against,
        remedy: capitalized(causeRow(cause).remedy),
      })),
    checks: answer?.checkFirst ?? [],
    conflicts: answer?.conflicts ?? [],
    sentence: answer && !answer.refer ? answer.sentence : null,
    remedy: answer?.remedy ? capitalized(answer.remedy) : null,
    noChange: answer?.noChange ? formatNoChangeTitle(answer.noChange) : null,
    change: answer?.change ? asShown(answer.change, (answer.expect ?? []).map(formatExpected)) : null,
    changeWhy: answer?.change && answer.proposedFor ? whyOf(answer.proposedFor, answer.causes) : null,
    orSlide: answer?.orSlide ? asShown(answer.orSlide, []) : null,
    touched: touched.map(({ name }) => name),
    cue: answer?.cue ?? null,
    offBike: off ? { words: capitalized(off), exercise: exerciseNamed(off) ?? null } : null,
    subjects: answer && !answer.refer && !limitStop ? subjectsOf(complaints, off) : [],
    kit: answer && !answer.refer ? kitAdviceFor(answer.causes) : [],
    refer: answer?.refer?.why ?? null,
    running: summaries.filter(({ ended }) => ended === null),
    past: summaries.filter(({ ended }) => ended !== null),
    numbers: onFile.entry ? formatMarks(onFile.entry.type, onFile.entry.marks) : null,
    bike: onFile.bike ? formatBikeName(onFile.bike.type.name, onFile.bike.number) : (type?.name ?? null),
    bikeId: onFile.bike?.id ?? null,
    wider: found.wider ? formatWider({ widthMm: found.wider.ownMm }, found.wider.bikes) : null,
    saddleLine: onFile.saddleLine
      ? `The saddle’s nose stood ${formatLength(Math.abs(onFile.saddleLine.mm))} off the frame’s line on ` +
        `${formatDate(onFile.saddleLine.at, timeZone)}.`
      : null,
    referral: referral ?? REFERRAL,
  }
}

/** What exercises can be given for, each with the one that the answer names first. */
function subjectsOf(complaints: Reasons['complaints'], off: string | null | undefined): SubjectText[] {
  const named = off ? exerciseNamed(off) : undefined
  return [...new Set(complaints.map(({ what }) => what))]
    .map((complaint) => subjectText({ complaint }))
    .map(({ offered, others, ...subject }) => ({
      ...subject,
      offered: [...(named ? [named] : []), ...offered.filter((one) => one !== named)],
      others: others.filter((one) => one !== named),
    }))
    .filter(({ offered }) => offered.length > 0)
}

/** Why a change serves its cause: the cause, what speaks for it, and what helps there. */
function whyOf(cause: Cause, causes: readonly Readonly<{ cause: Cause; for: readonly string[] }>[]): string {
  const { name, remedy } = causeRow(cause)
  const [reason] = causes.find((one) => one.cause === cause)?.for ?? []
  return `Why: ${lowered(name)}${reason ? `, because ${lowered(reason)}` : ''}. What helps there: ${lowered(remedy)}.`
}

function begunBy(region: string, side: 'left' | 'right' | 'both'): Partial<ComplaintInput> {
  const flag = redFlagNamed(region)
  return { ...(flag && COMPLAINT_OF_RED_FLAG[flag.flag]), ...(side !== 'both' && { side }) }
}
