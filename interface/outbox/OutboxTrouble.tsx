'use client'
import { troubleLine } from './trouble'
import { useOutbox } from './OutboxProvider'
import parts from './parts.module.css'

/** What stands between a queue and the server, in one line; nothing while all is well. */
export function OutboxTrouble({ queue }: { queue: string }) {
  const outbox = useOutbox()
  const text = troubleLine(
    (outbox.entries ?? []).filter((e) => e.queue === queue),
    outbox,
  )
  return text && <p className={parts.warn}>{text}</p>
}
