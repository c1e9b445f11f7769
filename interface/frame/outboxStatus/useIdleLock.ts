import { useEffect, useRef } from 'react'
import { storageOrNone } from '../../offline/OutboxProvider'

/** The last touch in any tab of this tablet, ms. */
const TOUCHED = 'yielding-saddle-touched'
const REPORT_MS = 60_000
const LOOK_MS = 5_000

/** The sign-in page of a shared tablet, which comes back to this page. */
export const lockedAddress = (): string => `/sign-in?to=${encodeURIComponent(window.location.pathname)}`

/**
 * Locks a shared tablet after minutes without a touch, and reports touches to the server. Without network it stays
 * open: nobody could open it again. `idleMinutes`: undefined on a device of one person, which does not lock.
 */
export function useIdleLock(idleMinutes: number | undefined, forgetDevice: () => Promise<void>): void {
  const forget = useRef(forgetDevice)
  useEffect(() => {
    forget.current = forgetDevice
  })
  useEffect(() => {
    if (!idleMinutes) return
    let reportedAt = Date.now()
    let own = Date.now()
    let isLocking = false
    const store = (at: number) => {
      own = at
      try {
        storageOrNone()?.setItem(TOUCHED, String(at))
      } catch {
        // Full: then each tab counts for itself.
      }
    }
    const leave = async () => {
      await forget.current().catch(() => undefined)
      window.location.replace(lockedAddress())
    }
    const lock = async () => {
      if (isLocking) return
      isLocking = true
      const response = await fetch('/api/auth/sign-out', { method: 'POST' }).catch(() => null)
      isLocking = response?.ok ?? false
      if (isLocking) await leave()
    }
    const report = async (at: number) => {
      reportedAt = at
      const response = await fetch('/api/accounts/touched', { method: 'POST' }).catch(() => null)
      if (response?.status === 401) await leave()
    }
    const touch = () => {
      const at = Date.now()
      store(at)
      if (at - reportedAt > REPORT_MS) void report(at)
    }
    store(own)
    const timer = setInterval(() => {
      const touchedAt = Math.max(own, Number(storageOrNone()?.getItem(TOUCHED) ?? 0))
      if (Date.now() - touchedAt >= idleMinutes * 60_000) void lock()
    }, LOOK_MS)
    const events = ['pointerdown', 'keydown'] as const
    for (const event of events) window.addEventListener(event, touch, { passive: true })
    return () => {
      clearInterval(timer)
      for (const event of events) window.removeEventListener(event, touch)
    }
  }, [idleMinutes])
}
