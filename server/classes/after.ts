import { formatNote } from '../../core/messages/watch'
import { afterList, type AfterKind } from '../../core/watch/afterList'
import { isOpen, lastLooks, resultOfRoomCue } from '../../core/watch/classState'
import type { RoomCueResult } from '../../core/watch/cue'
import { signNamed } from '../../core/watch/signs'
import type { Scope } from '../accounts/scope'
import type { DbExecutor } from '../db/connection'
import type { StudioClass } from './classes'
import { watchData } from './watchPage'

/** One thing to see to after a class. */
export type AfterRow = Readonly<{
  kind: AfterKind
  memberId: string
  name: string
  number: number | null
  /** What was noted, in words. */
  said: readonly string[]
  /** What to look at first, where a cue keeps failing. */
  setUp: string | null
}>

export type AfterData = Readonly<{
  rows: readonly AfterRow[]
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
    said: string
    strength: string
    posture: string
    cued: boolean
    held: boolean | null
  }>[]
}>

/** What came up in a class, the most pressing first. */
export async function afterClass(db: DbExecutor, scope: Scope, ofClass: StudioClass, now: Date): Promise<AfterData> {
  const { bikes, state, earlier } = await watchData(db, scope, ofClass, now)
  const seated = bikes.flatMap(({ rider, number, toCheck, bikeId }) =>
    rider ? [{ ...rider, number, toCheck, bikeId }] : [],
  )
  const looks = lastLooks(state)
  const noteById = new Map(state.notes.map((note) => [note.id, note]))
  const numberOf = (memberId: string) => seated.find(({ id }) => id === memberId)?.number ?? null
  const nameOf = (memberId: string) => seated.find(({ id }) => id === memberId)?.name ?? ''
  const items = afterList({
    notes: state.notes,
    earlier: [...earlier, ...state.notes],
    warmUp: seated.filter(({ toCheck }) => toCheck).map(({ id }) => id),
    trialsDue: [],
  })
  return {
    rows: items.map(({ kind, memberId, notes }) => {
      const own = notes.map((id) => noteById.get(id)!)
      return {
        kind,
        memberId,
        name: nameOf(memberId),
        number: numberOf(memberId),
        said: [...new Set(own.map(formatNote))],
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
      said: formatNote(note),
      strength: note.strength ?? '',
      posture: note.posture ?? '',
      cued: note.cued,
      held: note.held,
    })),
  }
}
