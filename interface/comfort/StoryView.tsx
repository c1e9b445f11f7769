'use client'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import type { StoryItem } from '@/server/comfort/story'
import styles from './story.module.css'
import type { StoryPage } from './storyPage'

const StoryCharts = dynamic(() => import('./StoryCharts'), {
  ssr: false,
  loading: () => <div className={styles.hold} />,
})

const KIND_NAME: Readonly<Record<StoryItem['kind'], string>> = {
  numbers: 'Numbers',
  note: 'Seen in class',
  complaint: 'Felt',
  trial: 'Trial',
  ended: 'Trial over',
  rating: 'How it is',
}
const SHOWN = [
  ['all', 'Everything'],
  ['numbers', 'Numbers'],
  ['note', 'Seen'],
  ['felt', 'Felt and tried'],
] as const
type Shown = (typeof SHOWN)[number][0]

const isShown = (kind: StoryItem['kind'], shown: Shown): boolean =>
  shown === 'all' || shown === kind || (shown === 'felt' && kind !== 'numbers' && kind !== 'note')

/** So many lines stand at once. */
const PAGE = 30

/** One line of time: numbers, what was seen and said, what was felt, what was tried and how it ended. */
export function StoryView({ story }: { story: StoryPage }) {
  const [shown, setShown] = useState<Shown>('all')
  const [most, setMost] = useState(PAGE)
  const items = story.items.filter(({ kind }) => isShown(kind, shown))
  const isDrawn = story.lines.length > 0 || story.knees.length > 0
  if (story.items.length === 0)
    return <p className={styles.none}>Nothing yet. It begins with the first numbers, or the first thing noted.</p>
  return (
    <div className={styles.story}>
      {isDrawn && <StoryCharts {...story} />}
      <div className={`${styles.kinds} no-print`} role="group" aria-label="Shown">
        {SHOWN.map(([value, name]) => (
          <button key={value} type="button" aria-pressed={shown === value} onClick={() => setShown(value)}>
            {name}
          </button>
        ))}
      </div>
      <ol className={styles.line}>
        {items.slice(0, most).map(({ id, kind, title, more, date }) => (
          <li key={`${kind} ${id}`} className={styles[kind]}>
            <time>{date}</time>
            <div>
              <p>
                <small>{KIND_NAME[kind]}</small>
                {title}
              </p>
              {more && <span>{more}</span>}
            </div>
          </li>
        ))}
      </ol>
      {items.length > most && (
        <button type="button" className={styles.more} onClick={() => setMost(most + PAGE)}>
          Earlier
        </button>
      )}
    </div>
  )
}
