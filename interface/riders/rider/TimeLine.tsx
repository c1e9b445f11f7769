'use client'
import { Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import { formatMoved, UNCHANGED } from '@/core/messages/setups/register'
import { useAction } from '../../commands/useAction'
import { query, command } from '../../commands/command'
import { Compare } from './Compare'
import rider from './rider.module.css'
import styles from './timeLine.module.css'
import { timelineEntries, type TimelineEntry } from './timelineEntries'

type Props = Readonly<{
  memberId: string
  /** The latest entries, and whether there are older ones. */
  entries: readonly TimelineEntry[]
  more: boolean
  /** Ids of the entries in force. */
  holding: readonly string[]
  maySetUp: boolean
}>

/** Everything the rider was ever given: what changed and why, any two side by side, any of them again with one tap. */
export function TimeLine({ memberId, entries: first, more: hasMore, holding, maySetUp }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  const [older, setOlder] = useState<Readonly<{ after: string; entries: readonly TimelineEntry[]; more: boolean }>>()
  const [picked, setPicked] = useState<readonly string[]>([])
  const last = first.at(-1)?.id
  // What was loaded follows the first page only as long as that ends where it did.
  const loaded = older?.after === last ? older : undefined
  const entries = useMemo(() => [...first, ...(loaded?.entries ?? [])], [first, loaded])
  const more = loaded ? loaded.more : hasMore
  const chosen = picked.flatMap((id) => entries.find((entry) => entry.id === id) ?? [])

  async function loadOlder() {
    const found = await act(() => query('register.earlierEntries', { memberId, before: entries.at(-1)!.id }))
    if (found && last)
      setOlder({
        after: last,
        entries: [...(loaded?.entries ?? []), ...timelineEntries(found.entries, found.timeZone)],
        more: found.entries.length === first.length,
      })
  }
  const pick = (id: string) =>
    setPicked((all) => (all.includes(id) ? all.filter((one) => one !== id) : [...all, id].slice(-2)))

  async function restore(id: string) {
    if (await act(() => command('register.restoreNumbers', { entryId: id }))) router.refresh()
  }
  return (
    <section className={`${rider.part} no-print`} aria-label="Time line">
      <h2>Time line</h2>
      {chosen.length === 2 && <Compare two={inOrder(chosen, entries)} close={() => setPicked([])} />}
      <ol className={styles.line}>
        {entries.map((entry, i) => {
          const before = entries.slice(i + 1).find(({ set }) => set === entry.set)
          const moved = formatMoved(entry.type, before?.marks ?? null, entry.marks)
          const isCurrent = holding.includes(entry.id)
          return (
            <li key={entry.id} className={isCurrent ? styles.holds : undefined}>
              <time>
                {entry.date}
                <small>{entry.time}</small>
              </time>
              <div>
                <p className={styles.numbers}>
                  <b>{entry.line}</b>
                  <span>
                    {entry.where}
                    {entry.purpose && `, ${entry.purpose.toLowerCase()}`}
                  </span>
                </p>
                <p>
                  {moved && moved !== UNCHANGED ? `${moved}; ` : ''}
                  {entry.why}
                </p>
                <p className={rider.quiet}>
                  {entry.sure}, {entry.by}
                  {entry.shoes && `, ${entry.shoes}`}
                </p>
              </div>
              <div className={styles.does}>
                <Button
                  size="large"
                  aria-pressed={picked.includes(entry.id)}
                  type={picked.includes(entry.id) ? 'primary' : 'default'}
                  onClick={() => pick(entry.id)}
                >
                  Compare
                </Button>
                {isCurrent ? (
                  <span className={styles.now}>holds now</span>
                ) : (
                  maySetUp && (
                    <Button size="large" disabled={busy} onClick={() => restore(entry.id)}>
                      Use again
                    </Button>
                  )
                )}
              </div>
            </li>
          )
        })}
      </ol>
      {more && (
        <Button size="large" loading={busy} onClick={loadOlder}>
          Earlier ones
        </Button>
      )}
    </section>
  )
}

/** The earlier of two first. */
const inOrder = (two: readonly TimelineEntry[], all: readonly TimelineEntry[]) =>
  [...two].sort((a, b) => all.indexOf(b) - all.indexOf(a)) as [TimelineEntry, TimelineEntry]
