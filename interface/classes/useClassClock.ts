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

function watch(tell: () => void): () => void {
  watching.add(tell)
  if (watching.size === 1) begin()
  return () => {
    watching.delete(tell)
    if (watching.size === 0) clearInterval(timer)
  }
}

function begin(): void {
  tick(keptAhead())
  timer = setInterval(() => tick(clock.aheadMs), TICK_MS)
  askAhead()
    .then((aheadMs) => {
      if (aheadMs === null) return
      keepAhead(aheadMs)
      if (watching.size > 0) tick(aheadMs)
    })
    .catch(() => undefined)
}

function tick(aheadMs: number): void {
  clock = { nowMs: Date.now() - aheadMs, aheadMs }
  for (const tell of watching) tell()
}

/** How far this device's clock is ahead of the server's, from the date the server answers with; null without one. */
async function askAhead(): Promise<number | null> {
  const asked = Date.now()
  const response = await fetch('/api/health', { cache: 'no-store' })
  const said = Date.parse(response.headers.get('date') ?? '')
  if (!Number.isFinite(said)) return null
  // The header is whole seconds: half of one is added.
  const off = (asked + Date.now()) / 2 - (said + 500)
  return Math.abs(off) > ALIKE_MS ? Math.round(off) : 0
}

function keptAhead(): number {
  try {
    const kept = Number(localStorage.getItem(KEY) ?? 0)
    return Number.isFinite(kept) ? kept : 0
  } catch {
    return 0
  }
}

function keepAhead(aheadMs: number): void {
  try {
    localStorage.setItem(KEY, String(aheadMs))
  } catch {
    // A device without storage fetches it again next time.
  }
}
