import type { AxisName, Label } from '../../base/conventions'
import type { AgainReason, MoveReason } from '../../setups/moves/move'
import type { HandPosition } from '../plan/blockWords'
import type { Posture } from '../plan/blocks'
import { FELT, RED_FLAG } from './comfort'
import type { RoomCueResult } from './cue'
import { roomCueResult } from './cue'
import { signNamed } from './signs'

export type Side = 'left' | 'right' | 'both'
export type Strength = 'slight' | 'clear'

/** What becomes of a note while a class goes on; what is left out stays. */
export type NoteChange = Readonly<Partial<{ strength: Strength; cued: boolean; held: boolean | null }>>

/**
 * Details of a note: its class and the minute of it; for something felt (`sign` `felt` or `redFlag`) the
 * region or flag, and how strong.
 */
export type NoteDetails = Readonly<
  Partial<{
    classId: string
    region: string
    strength: Strength
    score: number
    minute: number
    posture: Posture
    /** Where the hands lay: 1 the nearest, 3 the farthest. */
    hands: HandPosition
    cued: boolean
    /** The member agrees to notes with this one. */
    agrees: boolean
  }>
>

/** What a device writes of a class; ids are made on the device. */
export type ClassEntry =
  | (Readonly<{ op: 'addNote'; memberId: string; bikeId: string; sign: string; side: Side }> & NoteDetails)
  | Readonly<{ op: 'changeNote'; classId?: string; noteId: string; change: NoteChange }>
  | Readonly<{ op: 'withdrawNote'; classId?: string; noteId: string }>
  | Readonly<{ op: 'addLook'; classId: string; memberId: string; bikeId: string; numbers?: boolean }>
  | Readonly<{ op: 'addRoomCue'; classId: string; sign: string; cue: string; concerned: readonly string[] }>
  | MoveEntry
  | Readonly<{ op: 'undoMove'; classId?: string; moveId: string }>

/** A mark moved on a bike, in its labels; `from` is what the device showed. Outside a class without `classId`. */
export type MoveEntry = Readonly<{
  op: 'moveMark'
  classId?: string
  memberId: string
  bikeId: string
  axis: AxisName
  from: Label
  to: Label
  why: MoveReason
  again?: AgainReason
}>

/** A note as the floor shows it; `atMs` is when it was seen. */
export type NoteState = Readonly<{
  id: string
  memberId: string
  bikeId: string
  sign: string
  region: string
  side: Side
  strength: Strength | null
  score: number | null
  minute: number | null
  posture: Posture | null
  hands: HandPosition | null
  cued: boolean
  /** What the latest second look found; null before any, or where it was taken back. */
  held: boolean | null
  /** When `held` was set or withdrawn; null before either. */
  heldAtMs: number | null
  atMs: number
}>
export type LookState = Readonly<{ id: string; memberId: string; bikeId: string; atMs: number; numbers: boolean }>
export type RoomCueState = Readonly<{
  id: string
  sign: string
  cue: string
  concerned: readonly string[]
  atMs: number
}>

/** A mark moved in the class, and not taken back. */
export type MoveState = Omit<MoveEntry, 'op' | 'classId'> & Readonly<{ id: string; atMs: number }>

/** A class as noted so far. */
export type ClassState = Readonly<{
  notes: readonly NoteState[]
  looks: readonly LookState[]
  cues: readonly RoomCueState[]
  moves: readonly MoveState[]
}>

/** An entry with its id and when it was made. */
export type MadeEntry = Readonly<{ id: string; atMs: number; entry: ClassEntry }>

/** A class's state after more was written; one that is there already, or of a note that is not, changes nothing. */
export function afterEntries(state: ClassState, entries: readonly MadeEntry[]): ClassState {
  return entries.reduce(afterEntry, state)
}

function afterEntry(state: ClassState, { id, atMs, entry }: MadeEntry): ClassState {
  switch (entry.op) {
    case 'addNote': {
      if (state.notes.some((note) => note.id === id)) return state
      const { memberId, bikeId, sign, side, strength, score, minute, posture, hands, cued } = entry
      const note: NoteState = {
        id,
        memberId,
        bikeId,
        sign,
        region: signNamed(sign)?.region ?? entry.region ?? '',
        side,
        strength: strength ?? null,
        score: score ?? null,
        minute: minute ?? null,
        posture: posture ?? null,
        hands: hands ?? null,
        cued: cued ?? false,
        held: null,
        heldAtMs: null,
        atMs,
      }
      return { ...state, notes: [...state.notes, note] }
    }
    case 'changeNote': {
      const { noteId, change } = entry
      return {
        ...state,
        notes: state.notes.map((note) => (note.id === noteId ? { ...note, ...changeOf(note, change, atMs) } : note)),
      }
    }
    case 'withdrawNote':
      return { ...state, notes: state.notes.filter((note) => note.id !== entry.noteId) }
    case 'addLook': {
      if (state.looks.some((look) => look.id === id)) return state
      const { memberId, bikeId, numbers = false } = entry
      return { ...state, looks: [...state.looks, { id, memberId, bikeId, atMs, numbers }] }
    }
    case 'addRoomCue': {
      if (state.cues.some((cue) => cue.id === id)) return state
      const { sign, cue, concerned } = entry
      return { ...state, cues: [...state.cues, { id, sign, cue, concerned, atMs }] }
    }
    case 'moveMark': {
      if (state.moves.some((move) => move.id === id)) return state
      const { op: _, classId: __, ...move } = entry
      return { ...state, moves: [...state.moves, { ...move, id, atMs }] }
    }
    case 'undoMove':
      return { ...state, moves: state.moves.filter((move) => move.id !== entry.moveId) }
  }
}

/**
 * What a change made at `atMs` leaves of itself: a second look counts by when it was taken, not by when it arrived, so
 * that an older one does not change `held`.
 */
export function changeOf(
  { heldAtMs }: Pick<NoteState, 'heldAtMs'>,
  { held, ...rest }: NoteChange,
  atMs: number,
): NoteChange & Readonly<{ heldAtMs?: number }> {
  return held === undefined || (heldAtMs !== null && atMs < heldAtMs) ? rest : { ...rest, held, heldAtMs: atMs }
}

/** When each rider was last looked at: by a note, a second look at one, a look without a note, or a mark moved. */
export function lastLooks({ notes, looks, moves }: ClassState): ReadonlyMap<string, number> {
  const last = new Map<string, number>()
  const at = (memberId: string, ms: number) => last.set(memberId, Math.max(ms, last.get(memberId) ?? -Infinity))
  for (const { memberId, atMs, held, heldAtMs } of notes)
    at(memberId, held === null ? atMs : Math.max(atMs, heldAtMs ?? -Infinity))
  for (const { memberId, atMs } of [...looks, ...moves]) at(memberId, atMs)
  return last
}

/** Riders whose numbers somebody looked at in the class. */
export const numbersLookedAt = (looks: readonly Pick<LookState, 'memberId' | 'numbers'>[]): ReadonlySet<string> =>
  new Set(looks.filter(({ numbers }) => numbers).map(({ memberId }) => memberId))

/** Something seen and not yet seen to have changed. */
export const isOpen = ({ sign, held }: NoteState): boolean => sign !== FELT && sign !== RED_FLAG && held !== true

/**
 * What a cue to the room changed, by second looks after it: of the riders it concerned, and of those with something
 * else open then, whom it did not. Null before anybody it concerned was looked at again.
 */
export function resultOfRoomCue({ notes }: ClassState, { sign, concerned, atMs }: RoomCueState): RoomCueResult | null {
  const lookedAgain = notes.filter(
    (note) => note.atMs <= atMs && note.held !== null && note.heldAtMs !== null && note.heldAtMs > atMs,
  )
  const count = (of: readonly NoteState[]) => ({ changed: of.filter(({ held }) => held).length, of: of.length })
  const own = lookedAgain.filter((note) => note.sign === sign && concerned.includes(note.memberId))
  const others = lookedAgain.filter((note) => note.sign !== sign && !concerned.includes(note.memberId))
  return roomCueResult(count(own), count(others))
}
