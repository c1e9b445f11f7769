'use client'
import { CONSENT_TEXT } from '@/core/messages/riders/consent'
import styles from './consent.module.css'

/** Asks for consent before the first note about a rider; `onDecline` leads on without a note. */
export function AskConsent({
  name,
  wording,
  onAgree,
  onDecline,
}: Readonly<{ name: string; wording: string; onAgree: () => void; onDecline?: () => void }>) {
  return (
    <section className={styles.ask} aria-label={CONSENT_TEXT.title}>
      <b>
        {CONSENT_TEXT.ask}: {name} has not agreed to notes yet.
      </b>
      <blockquote>{wording}</blockquote>
      <div className={styles.answers}>
        <button type="button" className={styles.yes} onClick={onAgree}>
          {CONSENT_TEXT.agrees}
        </button>
        {onDecline && (
          <button type="button" className={styles.no} onClick={onDecline}>
            {CONSENT_TEXT.declines}
          </button>
        )}
      </div>
      <p>
        Without a yes nothing is noted. Pain that is sharp, growing or spreads: stop them, and send them to a clinician.
      </p>
    </section>
  )
}
