'use client'
import dynamic from 'next/dynamic'
import type { StoryPart } from '@/server/pages/comfort/story'
import styles from './story.module.css'
import type { StoryPage } from './storyPage'
import { Link } from '../../kit/Link'

const StoryCharts = dynamic(() => import('./StoryCharts'), {
  ssr: false,
  loading: () => <div className={styles.hold} />,
})

const KIND_NAME: Readonly<Record<StoryPage['items'][number]['kind'], string>> = {
  numbers: 'Numbers',
  note: 'Seen in class',
  complaint: 'Felt',
  trial: 'Trial',
  ended: 'Trial over',
  rating: 'How it is',
}
const PARTS: readonly (readonly [StoryPart, string])[] = [
  ['all', 'Everything'],
  ['numbers', 'Numbers'],
  ['note', 'Seen'],
  ['felt', 'Felt and tried'],
]

const queryOf = (part: StoryPart, page: number): string =>
  `?${new URLSearchParams({ ...(part !== 'all' && { part }), ...(page > 0 && { page: String(page) }) })}`

/** One time line: numbers, signs and cues, what was felt, what was tried and how it ended; page by page. */
export function StoryView({ story }: { story: StoryPage }) {
  const { items, part, page, more } = story
  if (story.isEmpty)
    return (
      <p className={styles.none} data-empty>
        Nothing yet. It begins with the first numbers, or the first thing noted.
      </p>
    )
  return (
    <div className={styles.story}>
      {(story.lines.length > 0 || story.knees.length > 0) && <StoryCharts {...story} />}
      <nav className={`${styles.kinds} no-print`} aria-label="Shown">
        {PARTS.map(([value, name]) => (
          <Link key={value} href={queryOf(value, 0)} scroll={false} aria-current={part === value ? 'true' : undefined}>
            {name}
          </Link>
        ))}
      </nav>
      {items.length === 0 && <p className={styles.none}>Nothing of this kind{page > 0 ? ' before that' : ' yet'}.</p>}
      <ol className={styles.line}>
        {items.map(({ id, kind, title, more: details, date }) => (
          <li key={`${kind} ${id}`} className={styles[kind]}>
            <time>{date}</time>
            <div>
              <p>
                <small>{KIND_NAME[kind]}</small>
                {title}
              </p>
              {details && <span>{details}</span>}
            </div>
          </li>
        ))}
      </ol>
      {(page > 0 || more) && (
        <nav className={`${styles.pages} no-print`} aria-label="Pages">
          {page > 0 && <Link href={queryOf(part, page - 1)}>Later</Link>}
          {more && <Link href={queryOf(part, page + 1)}>Earlier</Link>}
        </nav>
      )}
    </div>
  )
}
