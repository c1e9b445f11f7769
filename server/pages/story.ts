import { formatComplaint, formatRatings, formatWhen, OUTCOME_TEXT } from '../../core/messages/comfort'
import { formatBasis, formatMoved } from '../../core/messages/register'
import { capitalized } from '../../core/messages/phrases'
import { formatNote } from '../../core/messages/watch'
import { COMPLAINT_OF_FELT } from '../../core/complaints/complaint'
import type { ComplaintName } from '../../core/complaints/causeTable'
import { FELT, feltNamed } from '../../core/watch/comfort'
import { signNamed } from '../../core/watch/signs'
import type { Scope } from '../accounts/scope'
import { listNotesOfMember } from '../classes/notes'
import { listOwnCues } from '../classes/watch'
import type { DbExecutor } from '../db/connection'
import { listEntries } from '../register/register'
import { listFinishedSetups } from '../setups/setups'
import { listComplaints } from '../comfort/complaints'
import { listRides } from '../comfort/rides'
import { listTrials } from '../comfort/trials'

/** One line of a rider's story. */
export type StoryItem = Readonly<{
  id: string
  at: Date
  kind: 'numbers' | 'note' | 'complaint' | 'trial' | 'ended' | 'rating'
  title: string
  more: string
}>

/** How it was, 0 nothing to 10 as bad as can be. */
export type FeltPoint = Readonly<{ at: Date; what: ComplaintName; rating: number }>
export type KneePoint = Readonly<{ at: Date; deg: number; by: 'goniometer' | 'photo' | 'gauge' }>

/** Which lines are shown: all, or those of some kinds. */
export const STORY_PARTS = ['all', 'numbers', 'note', 'felt'] as const
export type StoryPart = (typeof STORY_PARTS)[number]

/** What is asked of a story: which lines, and which page of them, from 0. */
export type StoryAsked = Readonly<{ part: StoryPart; page: number }>

/**
 * Numbers, notes, cues, complaints, trials and ratings of a rider in one line, the latest first, a page of it, and what
 * is drawn.
 */
export type Story = Readonly<{
  items: readonly StoryItem[]
  /** Whether nothing at all is known; and whether there are lines after these. */
  isEmpty: boolean
  more: boolean
  felt: readonly FeltPoint[]
  knees: readonly KneePoint[]
  /** Changes of the numbers, to mark in the drawings. */
  changes: readonly Readonly<{ at: Date; said: string }>[]
  rides: readonly Date[]
}>

const ENTRIES = 60
const SETUPS = 20
/** Lines of a page, and points of a drawing: the latest. */
export const STORY_LINES = 30
const MAX_POINTS = 300
/** Number of ratings in the history of one rating. */
const LAST_RATINGS = 6

const isOfPart = (kind: StoryItem['kind'], part: StoryPart): boolean =>
  part === 'all' || part === kind || (part === 'felt' && kind !== 'numbers' && kind !== 'note')

export async function storyOf(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  { part, page }: StoryAsked,
  now: Date,
): Promise<Story> {
  const [entries, notes, cues, complaints, trials, setups, rides] = [
    await listEntries(db, scope, memberId, { limit: ENTRIES }),
    await listNotesOfMember(db, scope, memberId),
    await listOwnCues(db, scope),
    await listComplaints(db, scope, memberId),
    await listTrials(db, scope, memberId, now),
    await listFinishedSetups(db, scope, memberId, SETUPS),
    await listRides(db, scope, memberId, now),
  ]
  const dateOf = (id: string | null) => entries.find((one) => one.id === id)?.createdAt
  const taken = new Set(complaints.map(({ noteId }) => noteId))
  const moved = entries.flatMap((entry, i) => {
    const before = entries.slice(i + 1).find((one) => one.lineId === entry.lineId && one.purpose === entry.purpose)
    const said = before ? formatMoved(entry.type, before.marks, entry.marks) : null
    return said && said !== 'as before' ? [{ entry, said }] : []
  })
  const items: StoryItem[] = [
    // What was put on trial is told as the trial.
    ...entries
      .filter(({ source }) => source !== 'trial')
      .map((entry): StoryItem => {
        const said = moved.find((one) => one.entry === entry)?.said
        return {
          id: entry.id,
          at: entry.createdAt,
          kind: 'numbers',
          title: said ? `${entry.type.name}: ${said}` : `${entry.type.name}: numbers kept`,
          more: capitalized(formatBasis(entry.source, entry.basis, dateOf(entry.fromId) ? 'before' : null)),
        }
      }),
    ...notes
      .filter(({ id }) => !taken.has(id))
      .map((note): StoryItem => {
        const cue = note.cued ? (cues[note.sign] ?? signNamed(note.sign)?.cue) : undefined
        const held = note.held === null ? '' : note.held ? ' It held.' : ' It did not hold.'
        return {
          id: note.id,
          at: note.createdAt,
          kind: note.sign === FELT ? 'complaint' : 'note',
          title: capitalized(formatNote(note)),
          more: cue ? `“${cue}”${held}` : held.trim(),
        }
      }),
    ...complaints.map((one): StoryItem => ({
      id: one.id,
      at: one.createdAt,
      kind: 'complaint',
      title: formatComplaint(one),
      more: [formatWhen(one), one.line && `“${one.line}”`, one.handedTo && `Referred; told: ${one.handedTo}`]
        .filter(Boolean)
        .join('. '),
    })),
    ...trials.flatMap((one): StoryItem[] => [
      { id: one.id, at: one.startedAt, kind: 'trial', title: one.said, more: capitalized(one.expects.join('; ')) },
      ...one.ratings.map(({ rating, at }, i) => ({
        id: `${one.id}/${i}`,
        at,
        kind: 'rating' as const,
        title: `${rating} of 10 during the trial`,
        more: formatRatings(
          one.ratingBefore,
          one.ratings.slice(Math.max(0, i - LAST_RATINGS + 1), i + 1).map((r) => r.rating),
          i >= LAST_RATINGS,
        ),
      })),
      ...(one.endedAt && one.outcome
        ? [
            {
              id: `${one.id}/end`,
              at: one.endedAt,
              kind: 'ended' as const,
              title: `Trial over: ${OUTCOME_TEXT[one.outcome]}`,
              more: one.said,
            },
          ]
        : []),
    ]),
  ]
  const shown = items.filter(({ kind }) => isOfPart(kind, part)).sort((a, b) => b.at.getTime() - a.at.getTime())
  return {
    items: shown.slice(page * STORY_LINES, (page + 1) * STORY_LINES),
    isEmpty: items.length === 0,
    more: shown.length > (page + 1) * STORY_LINES,
    felt: [
      ...complaints.map(({ createdAt: at, what, strength: rating }) => ({ at, what, rating })),
      ...trials.flatMap(({ what, ratings }) => ratings.map(({ at, rating }) => ({ at, what, rating }))),
      ...notes.flatMap(({ id, sign, region, score, createdAt: at }) => {
        const felt = sign === FELT && !taken.has(id) ? feltNamed(region) : undefined
        return felt && score !== null ? [{ at, what: COMPLAINT_OF_FELT[felt.region], rating: score }] : []
      }),
    ]
      .sort((a, b) => a.at.getTime() - b.at.getTime())
      .slice(-MAX_POINTS),
    knees: setups
      .flatMap(({ evidence, finishedAt: at }) => {
        const last = evidence.findLast((row) => row.kind === 'kneeAngle' && row.foot !== 'heel' && !row.moving)
        return last?.kind === 'kneeAngle' ? [{ at, deg: last.deg, by: last.by }] : []
      })
      .reverse(),
    changes: moved.map(({ entry, said }) => ({ at: entry.createdAt, said })).reverse(),
    rides: rides.map(({ at }) => at).reverse(),
  }
}
