'use client'
import { tapsSaid } from './entrySaid'
import { useOutbox } from './OutboxProvider'
import styles from './outbox.module.css'

/** What stands between a queue and the server, in one line; nothing while all is well. */
export function OutboxTrouble({ queue }: { queue: string }) {
  const { entries, offline } = useOutbox()
  const mine = (entries ?? []).filter((e) => e.queue === queue)
  const refused = mine.find((e) => e.state === 'refused')
  if (refused) return <p className={styles.warn}>Not taken: {refused.say}.</p>
  if (offline && mine.length > 0) return <p className={styles.warn}>No network: {tapsSaid(mine.length)} kept on this device, sent when it is back.</p>
  return null
}
