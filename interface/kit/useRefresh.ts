'use client'
import { useRouter } from 'next/navigation'
import { useCallback, useEffect } from 'react'

/**
 * Fetches the page's data again, also at an interval in ms. A request first checks whether the server is
 * there: without an answer the framework would leave for a page that cannot come, and what is shown now would be gone.
 */
export function useRefresh(everyMs?: number): () => void {
  const router = useRouter()
  const refresh = useCallback(() => {
    fetch('/api/health', { cache: 'no-store' })
      .then((response) => response.ok && router.refresh())
      .catch(() => undefined)
  }, [router])
  useEffect(() => {
    if (everyMs === undefined) return
    const timer = setInterval(refresh, everyMs)
    return () => clearInterval(timer)
  }, [refresh, everyMs])
  return refresh
}
