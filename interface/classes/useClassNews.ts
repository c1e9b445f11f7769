'use client'
import { useCallback, useEffect, useRef } from 'react'
import type { ClassEvent } from '@/server/classes/live'
import { useRefresh } from '../kit/useRefresh'
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

/** Time in which further news lead to no further request, ms: a busy class writes several times a second. */
const NEWS_MS = 1500

/** Fetches the page's rows again soon after anybody wrote of the class, this device's outbox included. */
export function useRefreshOnNews(classId: string): void {
  const refresh = useRefresh()
  const due = useRef<ReturnType<typeof setTimeout>>(undefined)
  const soon = useCallback(() => {
    due.current ??= setTimeout(() => {
      due.current = undefined
      refresh()
    }, NEWS_MS)
  }, [refresh])
  useClassNews(classId, soon)
  useEffect(
    () => () => {
      clearTimeout(due.current)
      due.current = undefined
    },
    [],
  )
}
