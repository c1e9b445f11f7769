'use client'
import { useOutbox } from '../../offline/OutboxProvider'

/** What still waits on this device, in a sentence; nothing where all was sent. */
export function OutboxLine() {
  const { entries, offline } = useOutbox()
  const mine = entries ?? []
  if (mine.length === 0) return null
  const what = mine.length === 1 ? 'One change waits' : `${mine.length} changes wait`
  return (
    <p role="status">
      {offline
        ? `${what} on this device. They are sent when the network is back.`
        : `${what} on this device and ${mine.length === 1 ? 'is' : 'are'} being sent.`}
    </p>
  )
}
