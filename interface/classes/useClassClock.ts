'use client'
import { useSyncExternalStore } from 'react'

/** Clocks that differ by less are the same, ms. */
const ALIKE_MS = 30_000
const TICK_MS = 1000
const KEY = 'yielding-saddle-clock'

export type Clock = Readonly<{
  /** Now by the studio's clock, ms since 1970; 0 before the page lives. */
  nowMs: number
  /** By how much this device's clock runs ahead of the studio's, ms; 0 where they agree or nobody knows. */
  aheadMs: number
}>

const NOT_YET: Clock = { nowMs: 0, aheadMs: 0 }
/** One clock for the whole page, ticking while anybody looks at it. */
let clock = NOT_YET
const watching = new Set<() => void>()
let timer: ReturnType<typeof setInterval> | undefined

/**
 * The studio's clock, ticking: the device's own, set right by the server's where the two disagree. How far it is off is
 * fetched when the first part of a page needs it, and stored for pages that open without network.
 */
export const useClassClock = (): Clock =>
  useSyncExternalStore(
    watch,
    () => clock,
    () => NOT_YET,
  )

function watch(listener: () => void): () => void {
  watching.add(listener)
  if (watching.size === 1) begin()
  return () => {
    watching.delete(listener)
    if (watching.size === 0) clearInterval(timer)
  }
}

function begin(): void {
  tick(storedAhead())
  timer = setInterval(() => tick(clock.aheadMs), TICK_MS)
  fetchAhead()
    .then((aheadMs) => {
      if (aheadMs === null) return
      storeAhead(aheadMs)
      if (watching.size > 0) tick(aheadMs)
    })
    .catch(() => undefined)
}

function tick(aheadMs: number): void {
  clock = { nowMs: Date.now() - aheadMs, aheadMs }
  for (const listener of watching) listener()
}

/** How far this device's clock is ahead of the server's, from the date the server answers with; null without one. */
async function fetchAhead(): Promise<number | null> {
  const sentAt = Date.now()
  const response = await fetch('/api/health', { cache: 'no-store' })
  const serverMs = Date.parse(response.headers.get('date') ?? '')
  if (!Number.isFinite(serverMs)) return null
  // The header is whole seconds: half of one is added.
  const off = (sentAt + Date.now()) / 2 - (serverMs + 500)
  return Math.abs(off) > ALIKE_MS ? Math.round(off) : 0
}

function storedAhead(): number {
  try {
    const stored = Number(localStorage.getItem(KEY) ?? 0)
    return Number.isFinite(stored) ? stored : 0
  } catch {
    return 0
  }
}

function storeAhead(aheadMs: number): void {
  try {
    localStorage.setItem(KEY, String(aheadMs))
  } catch {
    // A device without storage fetches it again next time.
  }
}
