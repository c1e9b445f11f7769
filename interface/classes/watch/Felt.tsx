'use client'
import { useState } from 'react'
import {
  FELT,
  FELT_REGIONS,
  feltNamed,
  RED_FLAG,
  RED_FLAGS,
  SCORES,
  type FeltRegion,
} from '@/core/classes/watch/comfort'
import type { NoteState, Side } from '@/core/classes/watch/classState'
import type { Noted } from './noted'
import styles from './notePanel.module.css'

/** Flags that stop the ride first; then where it is felt, the side, and one large scale. */
export function Felt({ onNote, own }: Readonly<{ onNote: (noted: Noted) => void; own: readonly NoteState[] }>) {
  const [region, setRegion] = useState<FeltRegion | null>(null)
  const [side, setSide] = useState<Side>('both')
  const scored = (where: FeltRegion) => own.findLast((note) => note.sign === FELT && note.region === where)
  if (region !== null)
    return (
      <section className={styles.howStrong} aria-label={feltNamed(region)!.name}>
        <button type="button" className={styles.back} onClick={() => setRegion(null)}>
          ‹ {feltNamed(region)!.name}
        </button>
        <div className={styles.kinds} role="group" aria-label="Side">
          {(['left', 'both', 'right'] as const).map((one) => (
            <button key={one} type="button" aria-pressed={side === one} onClick={() => setSide(one)}>
              {one}
            </button>
          ))}
          <RidersSides />
        </div>
        <p>How strong? 0 nothing, 10 as bad as can be</p>
        <div className={styles.scores}>
          {SCORES.map((score) => (
            <button
              key={score}
              type="button"
              aria-label={`${feltNamed(region)!.name}, ${score} of 10`}
              aria-pressed={scored(region)?.score === score}
              onClick={() => onNote({ sign: FELT, region, score, side })}
            >
              {score}
            </button>
          ))}
        </div>
      </section>
    )
  return (
    <div className={styles.felt}>
      <section aria-label="Stops the ride">
        <h3>Stops the ride</h3>
        <div className={styles.flags}>
          {RED_FLAGS.map(({ flag, name }) => (
            <button
              key={flag}
              type="button"
              aria-pressed={own.some((note) => note.sign === RED_FLAG && note.region === flag)}
              onClick={() => onNote({ sign: RED_FLAG, region: flag })}
            >
              {name}
            </button>
          ))}
        </div>
      </section>
      <section aria-label="Where is it felt?">
        <h3>Where is it felt?</h3>
        <div className={styles.places}>
          {FELT_REGIONS.map((one) => (
            <button key={one.region} type="button" onClick={() => setRegion(one.region)}>
              {one.name}
              {scored(one.region) && <em>{scored(one.region)!.score} of 10</em>}
            </button>
          ))}
        </div>
      </section>
    </div>
  )
}

/** Left and right are the rider's own: a head and shoulders that face you, each side with its letter. */
function RidersSides() {
  return (
    <svg className={styles.sides} viewBox="0 0 92 44" role="img" aria-label="Left and right are the rider’s own">
      <circle cx="46" cy="12" r="9" />
      <path d="M24 42c2-14 12-18 22-18s20 4 22 18Z" />
      <circle className={styles.eye} cx="43" cy="11" r="1.4" />
      <circle className={styles.eye} cx="49" cy="11" r="1.4" />
      <text x="10" y="36">
        R
      </text>
      <text x="82" y="36">
        L
      </text>
    </svg>
  )
}
