'use client'
import { useEffect } from 'react'

/** Prevents the screen from sleeping while the page is visible, where the device can. */
export function useWakeLock(): void {
  useEffect(() => {
    if (!('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | null = null
    let gone = false
    const requestLock = async () => {
      if (document.visibilityState !== 'visible' || lock) return
      try {
        const granted = await navigator.wakeLock.request('screen')
        if (gone) return void granted.release()
        lock = granted
        granted.addEventListener('release', () => (lock = null))
      } catch {
        // A device that saves its battery refuses; the next time the page is visible it is requested again.
      }
    }
    void requestLock()
    document.addEventListener('visibilitychange', requestLock)
    return () => {
      gone = true
      document.removeEventListener('visibilitychange', requestLock)
      void lock?.release()
    }
  }, [])
}
