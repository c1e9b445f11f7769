'use client'
import { formatMoveCaution } from '@/core/messages/setups/floorMoves'
import styles from './move.module.css'

/** A starter that is due, raised with one tap; `waits`: another change came first today. */
export function RaiseStarter({ text, waits, raise }: Readonly<{ text: string; waits: boolean; raise: () => void }>) {
  return (
    <div className={styles.raise} role="group" aria-label="Starter">
      <p>
        <b>{text}</b>
        <small>{waits ? 'Another change came first: raise it next time.' : formatMoveCaution('seatHeight')}</small>
      </p>
      {!waits && (
        <button type="button" onClick={raise}>
          Raise
        </button>
      )}
    </div>
  )
}
