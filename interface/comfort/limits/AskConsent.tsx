'use client'
import { CONSENT_TEXT } from '@/core/messages/riders/consent'
import styles from './consent.module.css'

/** Asks for consent before the first note about a rider. */
export function AskConsent({
  name,
  wording,
  onAgree,
}: Readonly<{ name: string; wording: string; onAgree: () => void }>) {
  return (
    <section className={styles.ask} aria-label={CONSENT_TEXT.title}>
      <b>
        {CONSENT_TEXT.ask}: {name} has not agreed to notes yet.
      </b>
      <blockquote>{wording}</blockquote>
      <button type="button" className={styles.yes} onClick={onAgree}>
        {CONSENT_TEXT.agrees}
      </button>
      <p>
        Without a yes nothing is noted. Pain that is sharp, growing or spreads: stop them, and send them to a clinician.
      </p>
    </section>
  )
}
