'use client'
import { useState } from 'react'
import { ASK_INSTRUCTOR, EXPERIENCE, FEET, NOT_ALONE } from '@/core/messages/setups/alone'
import type { EvidenceOf } from '@/core/riders/evidence/registry'
import styles from './alone.module.css'

type Rider = EvidenceOf<'rider'>
type Props = Readonly<{
  /** The studio's words to a referred rider; null for the product's. */
  referral: string | null
  /** The pedals' two sides differ: which one is ridden is asked. */
  hasSides: boolean
  onRider: (row: Rider) => void
}>

/** Health comes first: whoever has one of these is sent to the instructor, and nothing of it is stored. */
export function HealthFirst({ referral, hasSides, onRider }: Props) {
  const [given, setGiven] = useState<Rider['experience'] | 'some' | null>(null)
  if (given === 'some')
    return (
      <section className={styles.stop} role="alert">
        <p>{ASK_INSTRUCTOR}</p>
        {referral && <p>{referral}</p>}
        <button type="button" className={styles.quietButton} onClick={() => setGiven(null)}>
          Back
        </button>
      </section>
    )
  if (given)
    return (
      <section className={styles.card} aria-label={FEET.title}>
        <h2>{FEET.title}</h2>
        <div className={styles.two}>
          {FEET.choices.map(({ value, name, hint }) => (
            <button
              key={value}
              type="button"
              className={styles.choice}
              onClick={() => onRider({ kind: 'rider', experience: given, pedal: value })}
            >
              {name} <small>{hint}</small>
            </button>
          ))}
        </div>
      </section>
    )
  return (
    <section className={styles.card} aria-label="Health first">
      <h2>Is any of this so?</h2>
      <ul className={styles.health}>
        {NOT_ALONE.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <button type="button" className={styles.choice} onClick={() => setGiven('some')}>
        One of these
      </button>
      <p className={styles.ask}>{EXPERIENCE.title}</p>
      <div className={styles.three}>
        {EXPERIENCE.choices.map(({ value, name }) => (
          <button
            key={value}
            type="button"
            className={styles.choice}
            onClick={() => (hasSides ? setGiven(value) : onRider({ kind: 'rider', experience: value }))}
          >
            {name}
          </button>
        ))}
      </div>
    </section>
  )
}
