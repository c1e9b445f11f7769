'use client'
import { useState } from 'react'

/**
 * An id for one write, the same until it was kept or changed: a retry of the same after a lost answer then changes
 * nothing.
 */
export function useWriteId(): Readonly<{ id: string; part: (i: number) => string; renew: () => void }> {
  const [id, setId] = useState(() => crypto.randomUUID() as string)
  // The parts of one write have ids of their own that are the same in a retry.
  const part = (i: number) => `${id.slice(0, -4)}${i.toString(16).padStart(4, '0')}`
  return { id, part, renew: () => setId(crypto.randomUUID()) }
}
