'use client'
import { useCallback, useRef } from 'react'

/**
 * Ids for writes that may be sent again: the same content has the same id until `forget`, another content another one.
 * A retry after a lost answer then changes nothing, and what was corrected in between is never swallowed.
 */
export function useIdempotencyKey(): Readonly<{ idFor: (content: unknown) => string; forget: () => void }> {
  const last = useRef<{ content: string; id: string } | null>(null)
  const idFor = useCallback((content: unknown) => {
    const written = JSON.stringify(content)
    if (last.current?.content !== written) last.current = { content: written, id: crypto.randomUUID() }
    return last.current.id
  }, [])
  const forget = useCallback(() => void (last.current = null), [])
  return { idFor, forget }
}

export { partId } from '@/server/platform/ids'
