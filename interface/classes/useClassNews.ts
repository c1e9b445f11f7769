'use client'
import { useEffect, useRef } from 'react'
import type { ClassEvent } from '@/server/classes/live'
import { listenShared } from '../offline/sharedEvents'

/**
 * Hears what others write of a class: an entry, or null for anything that needs the page's rows again; null too
 * whenever something may have been missed.
 */
export function useClassNews(classId: string, listener: (news: ClassEvent) => void): void {
  const heard = useRef(listener)
  useEffect(() => {
    heard.current = listener
  })
  useEffect(
    () =>
      listenShared(`/api/classes/${classId}/news`, {
        message: (data) => heard.current(JSON.parse(data) as ClassEvent),
        back: () => heard.current(null),
      }),
    [classId],
  )
}
