'use client'
import { useRouter } from 'next/navigation'
import { useEffect } from 'react'
import { deliveredSince } from './delivery/lastDelivery'
import { storageOrNone, useOutbox } from './OutboxProvider'

/**
 * Fetches the page's data once more if an entry of this device reached the server after the request of the document:
 * the rows may be older than that entry, which is no longer on the device either.
 */
export function useRefreshAfterDelivery(): void {
  const router = useRouter()
  const { entries } = useOutbox()
  // An entry is recorded as delivered before it leaves the store: what the first look at the store misses is recorded.
  const storeWasRead = entries !== null
  useEffect(() => {
    if (storeWasRead && deliveredSince(storageOrNone(), performance.timeOrigin)) router.refresh()
  }, [storeWasRead, router])
}
