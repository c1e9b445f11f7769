'use client'
import type { NoteChange, NoteState } from '@/core/classes/watch/classState'
import { FELT, RED_FLAG } from '@/core/classes/watch/comfort'
import type { CueAdvice } from '@/core/classes/watch/cue'
import { ANKLE_INSTEAD, formatCueHistory, formatNote, formatSetUpFirst } from '@/core/messages/classes/watch'
import { formatMoveOnTile } from '@/core/messages/setups/floorMoves'
import { capitalized } from '@/core/messages/words/phrases'
import { raisedTo, type FloorScales, type MarkMove } from '@/core/setups/moves/move'
import type { WatchBike } from '@/server/pages/classes/watch'
import { RaiseStarter } from '../../setups/move/RaiseStarter'
import type { Noted } from './noted'
import type { Movable } from './useMoves'
import styles from './notePanel.module.css'

type OnChange = (noteId: string, change: NoteChange) => void

/** Notes from before, each with what a second look found. */
export function OpenNotes({ notes, onChange }: Readonly<{ notes: readonly NoteState[]; onChange: OnChange }>) {
  return (
    <ul className={styles.open} aria-label="Open notes">
      {notes.map((note) => (
        <li key={note.id}>
          <span>
            {formatNote(note)}
            {note.strength === 'clear' && <em> clear</em>}
            {note.held === false && <em> not changed</em>}
          </span>
          <button type="button" aria-pressed={note.held === true} onClick={() => onChange(note.id, { held: true })}>
            Changed
          </button>
          <button type="button" aria-pressed={note.held === false} onClick={() => onChange(note.id, { held: false })}>
            Not yet
          </button>
        </li>
      ))}
    </ul>
  )
}

/** Cues for these turn a foot to where it should point. */
const FORCES_FOOT: readonly string[] = ['turnedOut', 'turnedIn', 'unevenFeet']

/** The one cue for an open note, in the studio's own words where it has any; or what comes before a cue. */
export function Cue({
  advice,
  about,
  ankle,
  words,
  onChange,
}: Readonly<{
  advice: CueAdvice
  about: NoteState
  /** An old ankle injury. */
  ankle: boolean
  words: string | undefined
  onChange: OnChange
}>) {
  return (
    <div className={styles.cue} aria-live="polite">
      {ankle && FORCES_FOOT.includes(advice.sign.sign) ? (
        <p className={styles.first}>{ANKLE_INSTEAD}</p>
      ) : advice.kind === 'say' ? (
        <>
          <p>“{words ?? advice.sign.cue}”</p>
          <button type="button" aria-pressed={about.cued} onClick={() => onChange(about.id, { cued: !about.cued })}>
            {about.cued ? 'Said ✓' : 'Said'}
          </button>
        </>
      ) : (
        <p className={styles.first}>{formatSetUpFirst(advice)}</p>
      )}
      <small>{formatCueHistory(advice)}</small>
    </div>
  )
}

/** What was tapped last, to be undone; else the latest note on another rider, to be repeated with one tap. */
export function LastTap({
  move,
  note,
  latest,
  onUndoMove,
  onWithdraw,
  onNote,
}: Readonly<{
  move: (MarkMove & Readonly<{ id: string; scales: FloorScales }>) | null
  note: NoteState | null
  latest: NoteState | undefined
  onUndoMove: (moveId: string) => void
  onWithdraw: (noteId: string) => void
  onNote: (noted: Noted) => void
}>) {
  if (move || note)
    return (
      <>
        <span>{move ? capitalized(formatMoveOnTile(move.scales, move)) : `${formatNote(note!)} noted`}</span>
        <button type="button" onClick={() => (move ? onUndoMove(move.id) : onWithdraw(note!.id))}>
          Undo
        </button>
      </>
    )
  if (!latest || latest.sign === FELT || latest.sign === RED_FLAG) return <span className={styles.quiet}>Next</span>
  return (
    <button type="button" className={styles.again} onClick={() => onNote({ sign: latest.sign, side: latest.side })}>
      Again: {formatNote(latest)}
    </button>
  )
}

/** What is planned for the rider and due; a starter is raised with one tap. */
export function DuePlans({
  bike,
  movable,
  movedToday,
  stopped,
  onMove,
}: Readonly<{
  bike: WatchBike
  movable: Movable | null
  movedToday: boolean
  /** Health comes first: nothing is raised. */
  stopped: boolean
  onMove: (move: MarkMove) => void
}>) {
  const from = movable?.marks.seatHeight
  const to = movable && bike.raiseMm !== null ? raisedTo(movable.scales, movable.marksBefore, bike.raiseMm) : null
  const isRaised = from !== undefined && from === to
  return bike.plans.map(({ id, kind, text }) =>
    kind !== 'starter' || !from || !to || stopped ? (
      <p key={id} className={styles.trial}>
        {text}
      </p>
    ) : isRaised ? null : (
      <RaiseStarter
        key={id}
        text={text}
        waits={movedToday || bike.onTrial}
        raise={() => onMove({ axis: 'seatHeight', from, to, why: 'planned' })}
      />
    ),
  )
}
