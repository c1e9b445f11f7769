'use client'
import { memo } from 'react'
import { formatNote } from '@/core/messages/classes/watch'
import type { NoteState } from '@/core/classes/watch/classState'
import { StopMark } from '../../kit/StopMark'
import styles from './watch.module.css'

type Props = Readonly<{
  number: number
  name: string | null
  chosen: boolean
  /** Ids of what is open, in one line. */
  open: string
  notes: readonly NoteState[]
  /** Whole minutes since somebody looked; null where nobody sits. */
  age: number | null
  looked: boolean
  /** 1 to 3: the place on the way round; 0: not on it. */
  next: number
  toCheck: boolean
  /** An open red flag, in words. */
  stop: string | null
  /** What is on trial here, in a few words. */
  trial: string | null
  /** Marks moved in this class, in a few words; empty for none. */
  moved: string
  onTap: () => void
}>

/** After so many minutes without a look the line at the foot of a tile is full. */
const FULL_AGE = 10

/** A bike during the class. Rendered again only when something on it changes. */
export const WatchTile = memo(
  function WatchTile({
    number,
    name,
    chosen,
    open,
    notes,
    age,
    looked,
    next,
    toCheck,
    stop,
    trial,
    moved,
    onTap,
  }: Props) {
    const openNotes = open === '' ? [] : open.split(' ').map((id) => notes.find((note) => note.id === id)!)
    const flagged = stop !== null || openNotes.some(({ sign }) => sign === 'redFlag')
    if (name === null)
      return (
        <span className={styles.empty} aria-hidden="true">
          {number}
        </span>
      )
    return (
      <button
        type="button"
        className={[
          styles.tile,
          chosen ? styles.chosen : '',
          next === 1 ? styles.first : '',
          flagged ? styles.flagged : '',
        ].join(' ')}
        onClick={onTap}
        aria-label={[
          `${number} ${name}`,
          next > 0 && `look next, ${next}`,
          looked ? `seen ${age} min ago` : 'unseen',
          stop && `stop: ${stop}`,
          toCheck && 'numbers to check',
          trial,
          moved,
          ...openNotes.map(formatNote),
        ]
          .filter(Boolean)
          .join(', ')}
        aria-pressed={chosen}
      >
        <span className={styles.top}>
          <b>{number}</b>
          {next > 0 && <em className={styles.way}>{next}</em>}
          <small className={looked ? undefined : styles.unseen}>
            {age === null ? '' : looked ? `${age}′` : 'unseen'}
          </small>
        </span>
        <span className={styles.name}>{name}</span>
        {flagged ? (
          <StopMark why={stop ?? 'red flag'} />
        ) : toCheck ? (
          <span className={styles.check}>to check</span>
        ) : (
          trial && <span className={styles.trial}>{trial}</span>
        )}
        <span className={styles.notes}>
          {[...(moved ? [moved] : []), ...openNotes.slice(-3).map(formatNote)].join('; ')}
        </span>
        <i className={styles.age} style={{ width: `${Math.min(100, (100 * (age ?? 0)) / FULL_AGE)}%` }} />
      </button>
    )
  },
  (a, b) =>
    a.number === b.number &&
    a.name === b.name &&
    a.chosen === b.chosen &&
    a.open === b.open &&
    a.age === b.age &&
    a.looked === b.looked &&
    a.next === b.next &&
    a.toCheck === b.toCheck &&
    a.stop === b.stop &&
    a.trial === b.trial &&
    a.moved === b.moved &&
    (a.open === '' || a.notes === b.notes),
)
