'use client'
import { useEffect } from 'react'

/** So long after a page answers to hands what it may need later is fetched, ms. */
const SOON_MS = 2500

/** Fetches a part of the page that opens later, once the page is quiet: it opens at once then, also without network. */
export function useSoon(load: () => Promise<unknown>): void {
  useEffect(() => {
    const timer = setTimeout(() => void load().catch(() => undefined), SOON_MS)
    return () => clearTimeout(timer)
  }, [load])
}
