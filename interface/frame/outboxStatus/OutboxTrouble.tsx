'use client'
import { troubleLine } from '../../offline/trouble'
import { useOutbox } from '../../offline/OutboxProvider'
import parts from './parts.module.css'

/** Why a queue cannot be sent, in one line; nothing while all is well. */
export function OutboxTrouble({ queue }: { queue: string }) {
  const outbox = useOutbox()
  const text = troubleLine(
    (outbox.entries ?? []).filter((e) => e.queue === queue),
    outbox,
  )
  return text && <p className={parts.warn}>{text}</p>
}
