'use client'
import { formatNote, formatRoomCueResult } from '@/core/messages/classes/watch'
import { isOpen, resultOfRoomCue, type ClassState, type NoteState } from '@/core/classes/watch/classState'
import { roomCue } from '@/core/classes/watch/cue'
import { formatSign, signNamed } from '@/core/classes/watch/signs'
import type { WatchBike } from '@/server/pages/classes/watch'
import styles from './notePanel.module.css'

type Props = Readonly<{
  state: ClassState
  bikes: readonly WatchBike[]
  cues: Readonly<Record<string, string>>
  onSpoken: (cue: Readonly<{ sign: string; cue: string; concerned: readonly string[] }>) => void
  onOutcome: (noteId: string, held: boolean) => void
  close: () => void
}>

/** The cue to the room that covers most open signs; then a second look: what changed, and for whom. */
export function RoomCuePanel({ state, bikes, cues, onSpoken, onOutcome, close }: Props) {
  const open = state.notes.filter(isOpen)
  const riders = bikes.filter(({ rider }) => rider).length
  const proposed = roomCue(open, riders)
  const last = state.cues.at(-1)
  const result = last && resultOfRoomCue(state, last)
  const bikeOf = (memberId: string) => bikes.find(({ rider }) => rider?.id === memberId)
  const scan = last ? scanOf(state.notes, last) : []
  return (
    <div className={styles.panel}>
      <header className={styles.head}>
        <h2>To the room</h2>
        <button type="button" className={styles.close} aria-label="Close" onClick={close}>
          ✕
        </button>
      </header>
      {proposed ? (
        <div className={styles.cue}>
          <p>“{cues[proposed.sign.sign] ?? proposed.sign.cue}”</p>
          <button
            type="button"
            onClick={() =>
              onSpoken({
                sign: proposed.sign.sign,
                cue: cues[proposed.sign.sign] ?? proposed.sign.cue,
                concerned: proposed.riders,
              })
            }
          >
            Said
          </button>
          <small>
            {formatSign(proposed.sign)}: {proposed.riders.length} of {riders} riders
          </small>
        </div>
      ) : (
        <p className={styles.quiet}>No cue is for at least a quarter of the room. Say it to the riders who need it.</p>
      )}
      {last && (
        <>
          <h3>Look again: who changed?</h3>
          <p className={styles.quiet}>
            After “{last.cue}” ({formatSign(signNamed(last.sign)!)}). The second group it was not meant for; it says
            what changes by itself.
          </p>
          <ul className={styles.open} aria-label="Second look">
            {scan.map((note) => {
              const bike = bikeOf(note.memberId)
              return (
                <li key={note.id}>
                  <span>
                    <b>{bike?.number}</b> {formatNote(note)}
                    {note.sign !== last.sign && <em> beside</em>}
                  </span>
                  <button
                    type="button"
                    aria-pressed={isAfter(note, last.atMs, true)}
                    onClick={() => onOutcome(note.id, true)}
                  >
                    Changed
                  </button>
                  <button
                    type="button"
                    aria-pressed={isAfter(note, last.atMs, false)}
                    onClick={() => onOutcome(note.id, false)}
                  >
                    Not yet
                  </button>
                </li>
              )
            })}
          </ul>
          {result && (
            <p className={styles.result} aria-live="polite">
              {formatRoomCueResult(result)}
            </p>
          )}
        </>
      )}
    </div>
  )
}

const isAfter = ({ held, heldAtMs }: NoteState, atMs: number, expected: boolean): boolean =>
  held === expected && heldAtMs !== null && heldAtMs > atMs

/** Whom to look at again: those it was meant for, then as many with something else open. */
function scanOf(
  notes: readonly NoteState[],
  cue: Readonly<{ sign: string; concerned: readonly string[]; atMs: number }>,
): NoteState[] {
  const before = notes.filter(
    (n) => n.atMs <= cue.atMs && signNamed(n.sign) && (isOpen(n) || (n.heldAtMs ?? 0) > cue.atMs),
  )
  const own = before.filter((n) => n.sign === cue.sign && cue.concerned.includes(n.memberId))
  const others = before.filter((n) => n.sign !== cue.sign && !cue.concerned.includes(n.memberId))
  return [...own, ...others.slice(0, Math.max(4, own.length))]
}
