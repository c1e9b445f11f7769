'use client'
import { useState } from 'react'

/** An id for one write, the same until it was kept or changed: a retry of the same after a lost answer then changes nothing. */
export function useWriteId(): Readonly<{ id: string; renew: () => void }> {
  const [id, setId] = useState(() => crypto.randomUUID() as string)
  return { id, renew: () => setId(crypto.randomUUID()) }
}
