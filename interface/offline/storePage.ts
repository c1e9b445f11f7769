'use client'
import { useEffect } from 'react'
import { keepOwnLink } from '../kit/ownLink'
import { PAGES, STATIC } from './caches'

const OWNER = 'yielding-saddle-pages-of'
const SNAPSHOT = 'yielding-saddle-class-'

/** Starts the service worker, and forgets pages that somebody else opened on this device. */
export function useServiceWorker(personId: string): void {
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return
    const takeOver = async () => {
      if (localStorage.getItem(OWNER) !== personId) {
        // A device that somebody of the studio signs in on is no member's own phone.
        keepOwnLink(null)
        await forgetPages()
      }
      isForgetting = false
      localStorage.setItem(OWNER, personId)
    }
    takenOver = takeOver()
    // A browser that forbids storage or workers goes on without.
    takenOver.then(() => navigator.serviceWorker.register('/service-worker.js')).catch(() => undefined)
  }, [personId])
}

/** Pages and states under way are not stored any more: what is removed must not come back. */
let isForgetting = false
/** Resolves once pages of the person before are removed. */
let takenOver: Promise<void> = Promise.resolve()

/** Where nobody is signed in: removes pages of the person before, whichever way their session ended. */
export function useForgottenPages(): void {
  useEffect(() => {
    forgetPages().catch(() => undefined)
  }, [])
}

/** Removes every stored page and every snapshot of a class from this device. */
export async function forgetPages(): Promise<void> {
  isForgetting = true
  // The worker's copy of this very page goes too.
  isFirstPage = false
  localStorage.removeItem(OWNER)
  for (const key of Object.keys(localStorage)) if (key.startsWith(SNAPSHOT)) localStorage.removeItem(key)
  if ('caches' in window) await caches.delete(PAGES)
}

/** What opens later on a page, such as a dialog, is fetched by then, ms. */
const LATER_MS = 8000

/** Stores this page with all its files, so that it opens without network; once each time it is opened. */
export function useStoredPage(path: string): void {
  useEffect(() => {
    if (!('caches' in window && 'serviceWorker' in navigator)) return
    const store = async () => {
      // Without a worker nobody would hand the page out.
      await navigator.serviceWorker.ready
      await takenOver
      if (takeStoredByWorker(path)) return storeParts()
      const response = await fetch(path, { headers: { accept: 'text/html' }, cache: 'no-store' })
      if (!response.ok || response.redirected) return
      await storeParts()
      if (!isForgetting) await (await caches.open(PAGES)).put(path, response)
    }
    store().catch(() => undefined)
    const later = setTimeout(() => void storeParts().catch(() => undefined), LATER_MS)
    return () => clearTimeout(later)
  }, [path])
}

let isFirstPage = true

/** Whether the worker stored this very page as it answered the document's request; true only for its first page. */
function takeStoredByWorker(path: string): boolean {
  const [document] = performance.getEntriesByType('navigation') as Partial<PerformanceNavigationTiming>[]
  const isFirst = isFirstPage
  isFirstPage = false
  // A browser without the document's source stores it again.
  return isFirst && (document?.workerStart ?? 0) > 0 && new URL(document.name!).pathname === path
}

async function storeParts(): Promise<void> {
  // The device's store is fetched after the page answers to hands; without it the page is not whole.
  await import('dexie')
  const parts = await caches.open(STATIC)
  await Promise.allSettled([...partsOfPage()].map(async (url) => (await parts.match(url)) ?? parts.add(url)))
}

/** Scripts, styles and fonts of this very page. */
function partsOfPage(): ReadonlySet<string> {
  const loaded = performance.getEntriesByType('resource').map(({ name }) => name)
  const named = [...document.querySelectorAll<HTMLScriptElement>('script[src]')].map(({ src }) => src)
  const styles = [...document.querySelectorAll<HTMLLinkElement>('link[rel="stylesheet"]')].map(({ href }) => href)
  const own = `${location.origin}/_next/static/`
  return new Set([...loaded, ...named, ...styles].filter((url) => url.startsWith(own)))
}

/**
 * Stores the last state of a class next to its page; nothing on a device without storage, or once its person leaves.
 */
export function saveSnapshot(classId: string, state: object): void {
  if (isForgetting) return
  try {
    localStorage.setItem(SNAPSHOT + classId, JSON.stringify(state))
  } catch {
    // Full or forbidden: without network the page then shows what it was made with.
  }
}

export function readSnapshot<State>(classId: string): State | null {
  try {
    return JSON.parse(localStorage.getItem(SNAPSHOT + classId) ?? 'null') as State | null
  } catch {
    return null
  }
}
