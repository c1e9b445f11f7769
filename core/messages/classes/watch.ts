import type { HandPosition, Posture } from '../../classes/plan/blockWords'
import type { Judged, PlanRemark } from '../../classes/plan/blocks'
import type { PlanFault } from '../../classes/plan/planFile'
import type { AfterKind } from '../../classes/watch/afterList'
import { FELT, feltNamed, RED_FLAG, redFlagNamed } from '../../classes/watch/comfort'
import type { ConsoleProposal } from '../../classes/watch/console'
import type { CueAdvice, RoomCueResult } from '../../classes/watch/cue'
import { formatSign, signNamed } from '../../classes/watch/signs'

/** A red flag tapped on the floor, by its name. */
export const formatRedFlag = (flag: string): string => redFlagNamed(flag)?.name ?? 'Red flag'

/** A note in words, without its side: "knees out", "felt: low back 4 of 10", "red flag: sharp pain". */
export function formatNoted({
  sign,
  region,
  score,
}: Readonly<{ sign: string; region?: string; score?: number | null }>): string {
  if (sign === FELT) {
    const where = feltNamed(region ?? '')?.name.toLowerCase() ?? 'something'
    return score === null || score === undefined ? `felt: ${where}` : `felt: ${where} ${score} of 10`
  }
  if (sign === RED_FLAG) return `red flag: ${redFlagNamed(region ?? '')?.name.toLowerCase() ?? 'stop'}`
  const named = signNamed(sign)
  return named ? formatSign(named) : sign
}

/** Hand positions, from the saddle away. */
export const HANDS_NAME: Readonly<Record<HandPosition, string>> = Object.freeze({ 1: 'near', 2: 'middle', 3: 'far' })

/** What a hand position has to do with a sign of arms and hands; null where nothing. */
export function formatHandsRemark(hands: HandPosition | null, posture: Posture | null): string | null {
  if (hands === 1) return 'The nearest grip invites the bent wrist.'
  return hands === 3 && posture === 'seated' ? 'Far forward is for standing.' : null
}

/** The same with its side where it is on one, and where the hands lay: "knees out, left", "wrist bent, hands near". */
export function formatNote(
  note: Readonly<{
    sign: string
    region?: string
    side: 'left' | 'right' | 'both'
    score?: number | null
    hands?: HandPosition | null
  }>,
): string {
  const side = note.side === 'both' ? '' : `, ${note.side}`
  return `${formatNoted(note)}${side}${note.hands ? `, hands ${HANDS_NAME[note.hands]}` : ''}`
}

/** Instead of a cue about how the feet point, for a rider with an old ankle injury. */
export const ANKLE_INSTEAD = 'An old ankle: leave the foot as it turns.'

/** "Said 2 times, held once." Earlier cues and their results; empty the first time. */
export function formatCueHistory(advice: CueAdvice): string {
  if (advice.kind === 'setUpFirst') return `Said and failed ${advice.failed} times: not again.`
  if (advice.said === 0) return ''
  const open = advice.said - advice.held - advice.failed
  const parts = [
    advice.held > 0 && `held ${times(advice.held)}`,
    advice.failed > 0 && `failed ${times(advice.failed)}`,
    open > 0 && `${open} not looked at again`,
  ].filter(Boolean)
  return `Said ${times(advice.said)}: ${parts.join(', ')}.`
}
const times = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`)

/** What to do where a cue failed repeatedly: set-up first, then strength. */
export function formatSetUpFirst({ sign }: Extract<CueAdvice, { kind: 'setUpFirst' }>): string {
  const ends = sign.setUp?.endsWith('?') ? '' : '.'
  const first = sign.setUp ? `Set-up first: ${sign.setUp}${ends}` : 'Set-up first.'
  return sign.strength ? `${first} Then strength: ${sign.strength}.` : first
}

const percent = (share: number): string => `${Math.round(100 * share)} %`

/** What a cue to the room changed, with its interval. */
export function formatRoomCueResult({ concerned, others, difference, low, high }: RoomCueResult): string {
  const own = `Changed in ${concerned.changed} of ${concerned.of} it was meant for`
  if (others.of === 0) return `${own}; nobody else was looked at again, so what changes by itself is not known.`
  const beside = `, and in ${others.changed} of ${others.of} it was not`
  const between = `${percent(difference)} more, somewhere from ${percent(low)} to ${percent(high)}`
  return low > 0 ? `${own}${beside}: ${between}. It helped.` : `${own}${beside}: ${between}. That may be chance.`
}

/** Why something seen does not count here, or counts more; empty for no reason. */
export function formatJudged({ why }: Judged): string {
  switch (why) {
    case 'asPlanned':
      return 'meant so in this block'
    case 'kneesUnderLoad':
      return 'slow and heavy, with knee notes: lighter'
    default:
      return ''
  }
}

const PROPOSED: Readonly<Record<ConsoleProposal['sign'], string>> = {
  behindBeat: 'behind the plan',
  aheadOfBeat: 'ahead of the plan',
  bouncing: 'fast with little load: bouncing?',
  feetStopped: 'feet stopped at speed?',
}
/** "7: 68 turns, behind the plan". */
export const formatConsoleProposal = ({ bike, sign, rpm }: ConsoleProposal): string =>
  `${bike}: ${rpm} turns, ${PROPOSED[sign]}`

/** Headings of the list after a class. */
export const AFTER_TITLE: Readonly<Record<AfterKind, string>> = {
  redFlag: 'Red flags',
  warmUp: 'Numbers nobody looked at',
  felt: 'Felt',
  cueFailed: 'Cues that failed three times',
  trialDue: 'Trials due',
  planDue: 'Planned, and due',
  moved: 'Marks moved: look again',
  noted: 'Noted, and not changed',
}

/** "Line 4: “fast” is no turns a minute; the block was left out." */
export const formatPlanFault = ({ line, column, text }: PlanFault): string =>
  column === 'beats' && text.includes('≠')
    ? `Line ${line}: turns and beats do not go together (${text}); the block was left out.`
    : text === ''
      ? `Line ${line}: ${column} is missing; the block was left out.`
      : `Line ${line}: “${text}” cannot stand under ${column}; the block was left out.`

const minutes = (n: number): string => `${Number(n.toFixed(1))} min`

/** What is remarked of a plan of blocks. */
export function formatPlanRemark(remark: PlanRemark): string {
  switch (remark.code) {
    case 'longSeated':
      return `${minutes(remark.minutes)} seated without a break: let them sit up or stand for a few turns.`
    case 'slowLong':
      return `${remark.name || 'A block'}: ${minutes(remark.minutes)} slow and hard is long, and not for sore knees.`
    case 'tooFast':
      return `${remark.name || 'A block'}: ${remark.rpm} turns a minute is fast, up to ${remark.mostRpm} holds form.`
    case 'tooSlow':
      return `${remark.name || 'A block'}: ${remark.rpm} turns a minute is slow: under ${remark.mostRpm} knees suffer.`
    case 'slowInARow':
      return `${remark.count} slow hard blocks in a row, ${minutes(remark.minutes)} in all: put an easier one between.`
    case 'otherLength':
      return `The blocks last ${minutes(remark.planMin)}, the class ${minutes(remark.classMin)}.`
    case 'noEasyStart':
      return 'It begins hard: there is no easy block to warm up and to look the room over.'
    case 'noEasyEnd':
      return 'It ends hard: there is no easy block to come down in.'
  }
}

/** A line of an earlier class that was put to this one. */
export const formatPutHere = (text: string): string => `from the last class: ${text}`

/** A line of the list after a class that a colleague handed on. */
export const formatHanded = (by: string, text: string): string => `${by} handed this to you: ${text}`

/** The state of a line after a class, and who set it. */
export function formatFollowUp({ state, to, by }: Readonly<{ state: string; to: string | null; by: string }>): string {
  if (state === 'nextClass') return `Put to the rider’s next class by ${by}`
  return state === 'handed' ? `Handed to ${to ?? 'a colleague'} by ${by}` : `Seen to by ${by}`
}
