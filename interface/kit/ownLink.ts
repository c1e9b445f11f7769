'use client'
import { useSyncExternalStore } from 'react'

const KEY = 'own-link'
const listeners = new Set<() => void>()

/** The token of the member's page this phone opened last and was not told to forget; null without one. */
function ownLinkToken(): string | null {
  try {
    const token = localStorage.getItem(KEY)
    return token && /^[\w-]{43}$/.test(token) ? token : null
  } catch {
    return null
  }
}

/** Keeps a member's link on this phone, so that a machine's code finds their numbers; null forgets it. */
export function keepOwnLink(token: string | null): void {
  try {
    if (token) localStorage.setItem(KEY, token)
    else localStorage.removeItem(KEY)
  } catch {
    // Without storage the link opens the page as ever.
  }
  listeners.forEach((changed) => changed())
}

function subscribe(changed: () => void): () => void {
  listeners.add(changed)
  return () => listeners.delete(changed)
}

/** The token this phone keeps; undefined as long as the page does not know. */
export const useOwnLink = (): string | null | undefined =>
  useSyncExternalStore(subscribe, ownLinkToken, () => undefined)
