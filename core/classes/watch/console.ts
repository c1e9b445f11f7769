import { judgeRpm, type Block } from '../plan/blocks'

/** One line of a bike's console (docs/bike-console.md). */
export type ConsoleReading = Readonly<{ bike: number; atMs: number; rpm: number; resistancePct: number }>

/** A reading of the stream as sent, or null for one that no console sends. */
export function parseConsoleReading(data: string): ConsoleReading | null {
  let sent: Record<string, unknown>
  try {
    sent = JSON.parse(data) as Record<string, unknown>
  } catch {
    return null
  }
  if (typeof sent !== 'object' || sent === null) return null
  const { bike, atMs, rpm, resistancePct } = sent
  const within = (value: unknown, low: number, high: number): value is number =>
    typeof value === 'number' && value >= low && value <= high
  if (!within(bike, 1, 9999) || !Number.isInteger(bike) || !within(atMs, 0, 1e14)) return null
  if (!within(rpm, 0, 220) || !within(resistancePct, 0, 100)) return null
  return { bike, atMs, rpm, resistancePct }
}

/** What a console may point at; it is proposed, and somebody who looks writes the note or does not. */
export type ConsoleProposal = Readonly<{
  bike: number
  sign: 'behindBeat' | 'aheadOfBeat' | 'bouncing' | 'feetStopped'
  rpm: number
}>

/** Window of readings judged together, ms, and the minimum number of them. */
export const CONSOLE_WINDOW_MS = 12_000
const MIN_READINGS = 5
/** So fast with so little load hips bounce (common practice, no source). */
const BOUNCING = { rpm: 105, resistancePct: 15 }
/** From a speed like this to none within the window, the feet were stopped on a turning wheel. */
const STOPPED_FROM_RPM = 80

/**
 * What the last seconds of one bike's console point at: feet stopped at speed first, then bouncing, then legs off the
 * plan of the block that runs; null for nothing. Readings of other bikes, and older ones, count for nothing.
 */
export function consoleProposal(
  readings: readonly ConsoleReading[],
  bike: number,
  nowMs: number,
  block: Block | null,
): ConsoleProposal | null {
  const own = readings
    .filter((one) => one.bike === bike && one.atMs <= nowMs && one.atMs > nowMs - CONSOLE_WINDOW_MS)
    .sort((a, b) => a.atMs - b.atMs)
  if (own.length < MIN_READINGS) return null
  const last = own[own.length - 1]
  const fastest = own.reduce((a, b) => (b.rpm > a.rpm ? b : a))
  const sudden = own.some((one, i) => i > 0 && own[i - 1].rpm >= STOPPED_FROM_RPM && one.rpm <= 5)
  if (sudden) return { bike, sign: 'feetStopped', rpm: Math.round(fastest.rpm) }
  const rpm = own.reduce((sum, one) => sum + one.rpm, 0) / own.length
  const load = own.reduce((sum, one) => sum + one.resistancePct, 0) / own.length
  if (rpm >= BOUNCING.rpm && load <= BOUNCING.resistancePct) return { bike, sign: 'bouncing', rpm: Math.round(rpm) }
  if (last.rpm <= 5) return null
  const judged = judgeRpm(rpm, block)
  const throughout = own.every((one) => judgeRpm(one.rpm, block) === judged)
  if (!throughout || (judged !== 'behindBeat' && judged !== 'aheadOfBeat')) return null
  return { bike, sign: judged, rpm: Math.round(rpm) }
}
