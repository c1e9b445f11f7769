'use client'
import { useCallback, useSyncExternalStore } from 'react'

/** A page reloaded later than this starts afresh, ms. */
const KEPT_MS = 60_000

/** Values by key, as JSON; replaces the storage of a tab that has none. */
const values = new Map<string, string | null>()
const listeners = new Set<() => void>()

/**
 * A state that survives a reload of the page within a minute, as a browser does when the network fails
 * halfway through a request for data. The server, and the first render in the browser, see `null`. Only for JSON values
 * without personal data: the next user of this device may read them.
 */
export function useTabState<Value>(key: string): readonly [Value | null, (value: Value | null) => void] {
  const json = useSyncExternalStore(listen, () => read(key), readNothing)
  const set = useCallback((value: Value | null) => write(key, value === null ? null : JSON.stringify(value)), [key])
  return [json === null ? null : (JSON.parse(json) as Value), set]
}

function listen(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

const readNothing = () => null

function read(key: string): string | null {
  if (!values.has(key)) values.set(key, stored(key))
  return values.get(key) ?? null
}

type Stored = Readonly<{ json: string; atMs: number }>

function stored(key: string): string | null {
  try {
    const { json, atMs } = JSON.parse(sessionStorage.getItem(key) ?? 'null') as Stored
    const age = Date.now() - atMs
    return age >= 0 && age < KEPT_MS ? json : null
  } catch {
    return null
  }
}

function write(key: string, json: string | null): void {
  values.set(key, json)
  try {
    if (json === null) sessionStorage.removeItem(key)
    else sessionStorage.setItem(key, JSON.stringify({ json, atMs: Date.now() } satisfies Stored))
  } catch {
    // Without storage the value lasts as long as the page.
  }
  for (const listener of listeners) listener()
}
