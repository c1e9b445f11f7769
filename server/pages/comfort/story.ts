import type { Marks } from '../../../core/base/conventions'
import type { BikeType } from '../../../core/bikes/bike/bike'
import { COMPLAINT_OF_FELT } from '../../../core/comfort/model/complaint'
import type { ComplaintName } from '../../../core/comfort/model/causeTable'
import { FELT, feltNamed } from '../../../core/classes/watch/comfort'
import { signNamed } from '../../../core/classes/watch/signs'
import { schoolOf } from '../../../core/base/school/school'
import { getStudio } from '../../studio/studio'
import type { Scope } from '../../platform/accounts/scope'
import { listNotesOfMember, type Note } from '../../classes/notes'
import { listOwnCues } from '../../classes/watch'
import type { DbExecutor } from '../../platform/db/connection'
import { listEntries, type RegisterEntry } from '../../setups/register'
import { listFinishedSetups } from '../../setups/setups'
import { listComplaints, type RiderComplaint } from '../../comfort/complaints'
import { listRides } from '../../comfort/rides'
import { listTrials, type Trial } from '../../comfort/trials'

/** Something recorded of a rider, with what it is about. */
type StoryEvent =
  | Readonly<{ kind: 'numbers'; entry: RegisterEntry; before: Marks | null; isRestored: boolean }>
  /** Seen or felt on the floor; `cue` is the cue given, in the words of the studio or of the product. */
  | Readonly<{ kind: 'note'; note: Note; cue: string | null }>
  | Readonly<{ kind: 'felt'; note: Note; cue: string | null }>
  | Readonly<{ kind: 'complaint'; complaint: RiderComplaint }>
  | Readonly<{ kind: 'trial' | 'ended'; trial: Trial }>
  /** `index` into the trial's ratings. */
  | Readonly<{ kind: 'rating'; trial: Trial; index: number }>

/** One line of a rider's story. */
export type StoryItem = Readonly<{ id: string; at: Date }> & StoryEvent

/** How it was, 0 nothing to 10 as bad as can be. */
export type FeltPoint = Readonly<{ at: Date; what: ComplaintName; rating: number }>
export type KneePoint = Readonly<{ at: Date; deg: number; by: 'goniometer' | 'photo' | 'gauge' }>

/** Which lines are shown: all, or those of some kinds. */
export const STORY_PARTS = ['all', 'numbers', 'note', 'felt'] as const
export type StoryPart = (typeof STORY_PARTS)[number]

/** Request of a story: which lines, and which page of them, from 0. */
export type StoryQuery = Readonly<{ part: StoryPart; page: number }>

/**
 * Numbers, notes, cues, complaints, trials and ratings of a rider in one line, the latest first, a page of it, and what
 * is drawn.
 */
export type Story = Readonly<{
  items: readonly StoryItem[]
  /** Whether the story is empty; and whether there are lines after these. */
  isEmpty: boolean
  more: boolean
  felt: readonly FeltPoint[]
  knees: readonly KneePoint[]
  /** Changes of the numbers, to mark in the drawings. */
  changes: readonly Readonly<{ at: Date; type: BikeType; before: Marks; after: Marks }>[]
  rides: readonly Date[]
  timeZone: string
  /** The knee window of the studio's school, degrees. */
  kneeWindowDeg: readonly [number, number]
}>

const ENTRIES = 60
const SETUPS = 20
/** Lines of a page, and points of a drawing: the latest. */
export const STORY_LINES = 30
const MAX_POINTS = 300
const isOfPart = (kind: StoryItem['kind'], part: StoryPart): boolean =>
  part === 'all' || part === kind || (part === 'felt' && kind !== 'numbers' && kind !== 'note')

export async function storyOf(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  { part, page }: StoryQuery,
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
  const { timeZone, school } = await getStudio(db, scope)
  const taken = new Set(complaints.map(({ noteId }) => noteId))
  const marksBefore = (entry: RegisterEntry, i: number): Marks | null =>
    entries.slice(i + 1).find((one) => one.lineId === entry.lineId && one.purpose === entry.purpose)?.marks ?? null
  const items: StoryItem[] = [
    // A trial's numbers are shown as the trial.
    ...entries.flatMap((entry, i): StoryItem[] =>
      entry.source === 'trial'
        ? []
        : [
            {
              id: entry.id,
              at: entry.createdAt,
              kind: 'numbers',
              entry,
              before: marksBefore(entry, i),
              isRestored: entries.some(({ id }) => id === entry.fromId),
            },
          ],
    ),
    ...notes
      .filter(({ id }) => !taken.has(id))
      .map((note): StoryItem => ({
        id: note.id,
        at: note.createdAt,
        kind: note.sign === FELT ? 'felt' : 'note',
        note,
        cue: (note.cued ? (cues[note.sign] ?? signNamed(note.sign)?.cue) : null) ?? null,
      })),
    ...complaints.map((complaint): StoryItem => ({
      id: complaint.id,
      at: complaint.createdAt,
      kind: 'complaint',
      complaint,
    })),
    ...trials.flatMap((trial): StoryItem[] => [
      { id: trial.id, at: trial.startedAt, kind: 'trial', trial },
      ...trial.ratings.map(({ at }, index): StoryItem => ({
        id: `${trial.id}/${index}`,
        at,
        kind: 'rating',
        trial,
        index,
      })),
      ...(trial.endedAt && trial.outcome
        ? [{ id: `${trial.id}/end`, at: trial.endedAt, kind: 'ended' as const, trial }]
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
    changes: entries
      .flatMap((entry, i) => {
        const before = marksBefore(entry, i)
        return before ? [{ at: entry.createdAt, type: entry.type, before, after: entry.marks }] : []
      })
      .reverse(),
    rides: rides.map(({ at }) => at).reverse(),
    timeZone,
    kneeWindowDeg: schoolOf(school).kneeWindowDeg,
  }
}
