'use client'
import type { ReactNode } from 'react'
import styles from './numbersCard.module.css'

/** One of a rider's sets of numbers: of one type and purpose. */
export type CurrentSet = Readonly<{
  entryId: string
  type: string
  /** Null for the usual. */
  purpose: string | null
  numbers: readonly Readonly<{ title: string; text: string }>[]
  /** The machine they were set on; null for none. */
  bikeId: string | null
  bike: string
  /** "Mon 23 Nov 2026", and since when, where that is earlier. */
  date: string
  since: string | null
  by: string
  sure: string
  /** Saved by a trainee, and looked over by nobody yet. */
  waits: boolean
  shoes: string | null
  why: string
  /** Machines of the type on which other marks are set, with why. */
  machines: readonly Readonly<{ number: number; line: string; why: string }>[]
  /** Machines on which they are set unchanged. */
  same: readonly number[]
}>

type Props = Readonly<{
  sets: readonly CurrentSet[]
  shown: CurrentSet
  show: (entryId: string) => void
  /** What the chance is, once it is worked out. */
  chance: ReactNode
  /** The same numbers, to be moved; null where they are on no machine, or this person moves none. */
  moves: ReactNode
  /** The tap that confirms them; null where this person confirms none. */
  confirm: ReactNode
}>

/** The numbers large enough to read from the next bike: one set at a time, the others a tap away. */
export function NumbersCard({ sets, shown, show, chance, moves, confirm }: Props) {
  return (
    <section className={styles.card} aria-label="Numbers">
      {sets.length > 1 && (
        <div className={`${styles.sets} no-print`} role="group" aria-label="Sets of numbers">
          {sets.map(({ entryId, type, purpose }) => (
            <button
              key={entryId}
              type="button"
              aria-pressed={entryId === shown.entryId}
              className={entryId === shown.entryId ? styles.here : undefined}
              onClick={() => show(entryId)}
            >
              <b>{type}</b>
              {purpose && <span>{purpose.toLowerCase()}</span>}
            </button>
          ))}
        </div>
      )}
      <p className={styles.bike}>
        {shown.bike}
        {shown.purpose && <span>{shown.purpose}</span>}
      </p>
      <dl className={styles.numbers}>
        {shown.numbers.map(({ title, text }) => (
          <div key={title}>
            <dt>{title}</dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
      {shown.waits && (
        <div className={styles.waits}>
          <b>Saved by a trainee: look them over at the bike.</b>
          {confirm}
        </div>
      )}
      {moves && <div className={`${styles.moves} no-print`}>{moves}</div>}
      <p className={styles.facts}>
        <b>{shown.sure}</b>
        {chance}
        <br />
        {shown.date}, by {shown.by}
        {shown.since && `, the same since ${shown.since}`}
        {shown.shoes && `, ${shown.shoes}`}
        <br />
        {shown.why}
      </p>
      {shown.machines.length > 0 && (
        <ul className={styles.machines} aria-label="On other machines of this type">
          {shown.machines.map(({ number, line, why }) => (
            <li key={number}>
              <span>On bike {number}</span>
              <b>{line}</b>
              <span>{why}</span>
            </li>
          ))}
          {shown.same.length > 0 && (
            <li>
              <span>The same on {shown.same.join(', ')}</span>
            </li>
          )}
        </ul>
      )}
    </section>
  )
}
