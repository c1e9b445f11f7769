import { needsRating } from '../../../core/comfort/changes/trial'
import { afterList, type AfterKind, type FollowUpState } from '../../../core/classes/watch/afterList'
import {
  isOpen,
  lastLooks,
  resultOfRoomCue,
  type MoveState,
  type NoteState,
} from '../../../core/classes/watch/classState'
import type { RoomCueResult } from '../../../core/classes/watch/cue'
import { signNamed } from '../../../core/classes/watch/signs'
import type { FloorScales } from '../../../core/setups/moves/move'
import type { Scope } from '../../platform/accounts/scope'
import { listBikesOfRecords } from '../../bikes/bikes'
import { isReferred, openComplaints, type RiderComplaint } from '../../comfort/complaints'
import { runningTrials, type Trial } from '../../comfort/trials'
import type { DbExecutor } from '../../platform/db/connection'
import { getStudio } from '../../studio/studio'
import type { StudioClass } from '../../classes/classes'
import { listEverybody } from '../../studio/people'
import { listFollowUps, listPutToClass, type FollowUp } from '../../classes/followUps'
import { atOrAfter, duePlans } from '../riders/plans'
import { readWatch } from './watch'

/** What a note is about, without when and by whom. */
type NotedThing = Pick<NoteState, 'sign' | 'region' | 'side' | 'score'>

/** What a line is about; `words` are those an earlier class put it here with. */
export type AfterSubject =
  | Readonly<{ kind: 'note'; note: NotedThing }>
  | Readonly<{ kind: 'complaint'; complaint: Pick<RiderComplaint, 'what' | 'side' | 'strength'> }>
  | Readonly<{ kind: 'trial'; trial: Pick<Trial, 'said' | 'stage' | 'proposed' | 'verdict'> }>
  | Readonly<{ kind: 'plan'; text: string }>
  | Readonly<{ kind: 'move'; move: MoveState; scales: FloorScales }>
  | Readonly<{ kind: 'words'; words: string }>

/** One thing to see to after a class. */
export type AfterRow = Readonly<{
  kind: AfterKind
  memberId: string
  name: string
  number: number | null
  /** The bike they rode; null where they sat on none of this class. */
  bikeId: string | null
  subjects: readonly AfterSubject[]
  /** Plans that ticking the line ticks. */
  planIds: readonly string[]
  /** Of numbers nobody looked at: the rider is new here, rather than left to the warm-up. */
  isNew: boolean
  /** What to look at first, where a cue failed repeatedly. */
  setUp: string | null
  /** The class the line is from: this one, or an earlier one that put it here. */
  classId: string
  /** "from Sunrise Ride, 28 Nov"; null for lines of this class. */
  from: Readonly<{ title: string; startsAt: Date }> | null
  /** What became of it; null while it is to be seen to. */
  followUp: Readonly<{ state: FollowUpState; handedTo: string | null; to: string | null; by: string }> | null
}>

export type AfterData = Readonly<{
  rows: readonly AfterRow[]
  /** Lines of earlier classes that were put to this one. */
  put: readonly AfterRow[]
  /** The words to referred riders, in the studio's own words; null for the product's. */
  referral: string | null
  /** Riders on the floor, and how many of them were looked at. */
  riders: number
  looked: number
  notLooked: readonly Readonly<{ name: string; number: number }>[]
  notes: number
  roomCues: readonly Readonly<{ cue: string; riders: number; result: RoomCueResult | null }>[]
  /** All notes in their order, for the list. */
  all: readonly Readonly<{
    minute: number | null
    number: number
    name: string
    note: NotedThing
    strength: string
    posture: string
    cued: boolean
    held: boolean | null
  }>[]
}>

const notedThing = ({ sign, region, side, score }: NoteState): NotedThing => ({ sign, region, side, score })

/** What came up in a class, the most pressing first. */
export async function afterClass(db: DbExecutor, scope: Scope, ofClass: StudioClass, now: Date): Promise<AfterData> {
  const { bikes, state, earlier, scales } = await readWatch(db, scope, ofClass, now)
  const seated = bikes.flatMap(({ rider, number, toCheck, isNew, bikeId }) =>
    rider ? [{ ...rider, number, toCheck, isNew, bikeId }] : [],
  )
  const looks = lastLooks(state)
  const noteById = new Map(state.notes.map((note) => [note.id, note]))
  const numberOf = (memberId: string) => seated.find(({ id }) => id === memberId)?.number ?? null
  const bikeOf = (memberId: string) => seated.find(({ id }) => id === memberId)?.bikeId ?? null
  const nameOf = (memberId: string) => seated.find(({ id }) => id === memberId)?.name ?? ''
  const ids = seated.map(({ id }) => id)
  const [complaints, trials] = [await openComplaints(db, scope, ids), await runningTrials(db, scope, ids, now)]
  // What runs on trial is under way; what was sent on is out of these hands.
  const onTrial = new Set(trials.map(({ complaintId }) => complaintId))
  const open = complaints.filter((one) => one.handedAt === null && (isReferred(one) || !onTrial.has(one.id)))
  const due = trials.filter(needsRating)
  const plans = await duePlans(db, scope, ids, atOrAfter(now, ofClass))
  const people = new Map((await listEverybody(db, scope)).map(({ id, name }) => [id, name]))
  const became = new Map(
    (await listFollowUps(db, scope, ofClass.id)).map((one) => [`${one.kind} ${one.memberId}`, one]),
  )
  const asFollowUp = ({ state: how, handedTo, by }: FollowUp): AfterRow['followUp'] => ({
    state: how,
    handedTo,
    to: handedTo ? (people.get(handedTo) ?? null) : null,
    by,
  })
  const typeOf = new Map((await listBikesOfRecords(db, scope)).map(({ id, typeId }) => [id, typeId]))
  const put = await listPutToClass(db, scope, ofClass)
  const noteIds = new Set(state.notes.map(({ id }) => id))
  const items = afterList({
    notes: state.notes,
    earlier: [...earlier, ...state.notes],
    warmUp: seated.filter(({ toCheck }) => toCheck).map(({ id }) => id),
    trialsDue: [...new Set(due.map(({ memberId }) => memberId))],
    plansDue: [...plans.keys()],
    moved: [...new Set(state.moves.map(({ memberId }) => memberId))],
    complaints: open
      .filter(({ noteId }) => noteId === null || !noteIds.has(noteId))
      .map((one) => ({ id: one.id, memberId: one.memberId, strength: one.strength, flagged: isReferred(one) })),
  })
  return {
    referral: (await getStudio(db, scope)).referral,
    put: put.map((one) => ({
      kind: one.kind,
      memberId: one.memberId,
      name: one.name,
      number: numberOf(one.memberId),
      bikeId: bikeOf(one.memberId),
      subjects: [{ kind: 'words', words: one.said }],
      planIds: [],
      isNew: false,
      setUp: null,
      classId: one.classId,
      from: { title: one.title, startsAt: one.startsAt },
      followUp: null,
    })),
    rows: items.map(({ kind, memberId, notes, complaints: reported }): AfterRow => {
      const own = notes.map((id) => noteById.get(id)!)
      const followedUp = became.get(`${kind} ${memberId}`)
      const moves = kind === 'moved' ? state.moves.filter((move) => move.memberId === memberId) : []
      const ofPlans = kind === 'planDue' ? (plans.get(memberId) ?? []) : []
      const ofTrial = kind === 'trialDue' ? due.filter((one) => one.memberId === memberId) : []
      return {
        kind,
        memberId,
        name: nameOf(memberId),
        number: numberOf(memberId),
        bikeId: bikeOf(memberId),
        classId: ofClass.id,
        from: null,
        followUp: followedUp ? asFollowUp(followedUp) : null,
        planIds: ofPlans.map(({ id }) => id),
        isNew: seated.some(({ id, isNew }) => id === memberId && isNew),
        subjects: [
          ...own.map((note) => ({ kind: 'note' as const, note: notedThing(note) })),
          ...reported.map((id) => ({ kind: 'complaint' as const, complaint: open.find((one) => one.id === id)! })),
          ...ofPlans.map(({ text }) => ({ kind: 'plan' as const, text })),
          ...ofTrial.map((trial) => ({ kind: 'trial' as const, trial })),
          ...moves.flatMap((move) => {
            const own = scales[typeOf.get(move.bikeId) ?? '']
            return own ? [{ kind: 'move' as const, move, scales: own }] : []
          }),
        ],
        setUp: kind === 'cueFailed' ? (signNamed(own[0].sign)?.setUp ?? null) : null,
      }
    }),
    riders: seated.length,
    looked: seated.filter(({ id }) => looks.has(id)).length,
    notLooked: seated.filter(({ id }) => !looks.has(id)).map(({ name, number }) => ({ name, number })),
    notes: state.notes.filter((note) => isOpen(note) || note.held === true).length,
    roomCues: state.cues.map((cue) => ({
      cue: cue.cue,
      riders: cue.concerned.length,
      result: resultOfRoomCue(state, cue),
    })),
    all: state.notes.map((note) => ({
      minute: note.minute,
      number: bikes.find(({ bikeId }) => bikeId === note.bikeId)?.number ?? 0,
      name: nameOf(note.memberId),
      note: notedThing(note),
      strength: note.strength ?? '',
      posture: note.posture ?? '',
      cued: note.cued,
      held: note.held,
    })),
  }
}
