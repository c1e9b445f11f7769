import { FAILS_BEFORE_SETUP, type CuedNote } from './cue'
import { FELT, RED_FLAG, STRONG_FROM } from './comfort'

/** A note of the class, as far as what comes after goes. */
export type ClassRecord = CuedNote & Readonly<{ id: string; region: string; score: number | null }>

/** Something to see to after a class, the most pressing kind first. */
export const AFTER_KINDS = ['redFlag', 'felt', 'cueFailed', 'trialDue', 'planDue', 'moved', 'noted', 'warmUp'] as const
export type AfterKind = (typeof AFTER_KINDS)[number]
/** What may become of a line: seen to, put to the rider's next class, handed to a colleague. */
export const FOLLOW_UPS = ['done', 'nextClass', 'handed'] as const
export type FollowUpState = (typeof FOLLOW_UPS)[number]
export type AfterItem = Readonly<{
  kind: AfterKind
  memberId: string
  notes: readonly string[]
  /** Ids of complaints reported outside the floor, as from the rider's own page. */
  complaints: readonly string[]
  score: number | null
}>

export type AfterInput = Readonly<{
  notes: readonly ClassRecord[]
  /** Notes of these riders from all classes, for cues that failed repeatedly. */
  earlier: readonly CuedNote[]
  /** Riders left to the warm-up and not looked at since. */
  warmUp: readonly string[]
  trialsDue: readonly string[]
  /** Riders for whom something planned is due. */
  plansDue: readonly string[]
  /** Riders on whose bike a mark was moved in the class. */
  moved: readonly string[]
  /** Open complaints of these riders reported outside the floor; `flagged`: no matter for a bike. */
  complaints?: readonly Readonly<{ id: string; memberId: string; strength: number; flagged: boolean }>[]
}>

/**
 * One list by urgency: red flags; what was felt, the strongest first; cues that fail again and again; trials and plans
 * that are due; marks that were moved; what else was noted and did not change; last the numbers nobody looked at. A
 * rider occurs once under each kind.
 */
export function afterList({
  notes,
  earlier,
  warmUp,
  trialsDue,
  plansDue,
  moved,
  complaints = [],
}: AfterInput): AfterItem[] {
  const riders = [...new Set([...notes, ...complaints].map(({ memberId }) => memberId))]
  const ofRider = (memberId: string, which: (note: ClassRecord) => boolean) =>
    notes.filter((note) => note.memberId === memberId && which(note))
  const items = riders.flatMap((memberId): AfterItem[] => {
    const flags = ofRider(memberId, ({ sign }) => sign === RED_FLAG)
    const felt = ofRider(memberId, ({ sign, score }) => sign === FELT && (score ?? 0) > 0)
    const seen = ofRider(memberId, ({ sign, held }) => sign !== FELT && sign !== RED_FLAG && held !== true)
    const fails = (sign: string) =>
      earlier.filter((note) => note.memberId === memberId && note.sign === sign && note.cued && note.held === false)
    const failing = seen.filter(({ sign }) => fails(sign).length >= FAILS_BEFORE_SETUP)
    const other = seen.filter((note) => !failing.includes(note))
    const complaintsWhere = (flagged: boolean) =>
      complaints.filter((one) => one.memberId === memberId && one.flagged === flagged)
    const item = (
      kind: AfterKind,
      of: readonly ClassRecord[],
      more: readonly Readonly<{ id: string }>[] = [],
      score: number | null = null,
    ): AfterItem[] =>
      of.length + more.length > 0
        ? [{ kind, memberId, notes: of.map(({ id }) => id), complaints: more.map(({ id }) => id), score }]
        : []
    const strongest = Math.max(
      0,
      ...felt.map(({ score }) => score ?? 0),
      ...complaintsWhere(false).map(({ strength }) => strength),
    )
    return [
      ...item('redFlag', flags, complaintsWhere(true)),
      ...item('felt', felt, complaintsWhere(false), strongest),
      ...item('cueFailed', failing),
      ...item('noted', other),
    ]
  })
  const alone =
    (kind: AfterKind) =>
    (memberId: string): AfterItem => ({ kind, memberId, notes: [], complaints: [], score: null })
  const all = [
    ...items,
    ...warmUp.map(alone('warmUp')),
    ...trialsDue.map(alone('trialDue')),
    ...plansDue.map(alone('planDue')),
    ...moved.map(alone('moved')),
  ]
  const order = ({ kind, score }: AfterItem): number =>
    AFTER_KINDS.indexOf(kind) * 100 - (kind === 'felt' ? (score ?? 0) : 0)
  return all
    .map((item, i) => ({ item, i }))
    .sort((a, b) => order(a.item) - order(b.item) || a.i - b.i)
    .map(({ item }) => item)
}

/** Whether something felt is pressing. */
export const isStrong = ({ score }: Pick<AfterItem, 'score'>): boolean => (score ?? 0) >= STRONG_FROM
