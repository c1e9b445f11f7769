/** What a round looks at on every bike, in the order one walks around it. */
export const INSPECTION_ITEMS = ['pins', 'bars', 'saddle', 'insertion', 'pedals', 'cleats', 'feet', 'stop'] as const
export type InspectionItem = (typeof INSPECTION_ITEMS)[number]

/** Days between two looks at one bike, unless the studio sets another. Assumption. */
export const INSPECT_EVERY_DAYS = 14
const DAY_MS = 86_400_000

/** Times are milliseconds since 1970, UTC. */
export type InspectionState = Readonly<
  { outcome: 'faulty' } | { outcome: 'never' } | { outcome: 'due' | 'good'; dueAtMs: number }
>

/** Whether a bike may be offered and when it is looked at next. A bike with an open fault is never offered. */
export function inspectionState(lastAtMs: number | null, openFaults: number, nowMs: number): InspectionState {
  if (openFaults > 0) return { outcome: 'faulty' }
  if (lastAtMs === null) return { outcome: 'never' }
  const dueAtMs = lastAtMs + INSPECT_EVERY_DAYS * DAY_MS
  return { outcome: dueAtMs <= nowMs ? 'due' : 'good', dueAtMs }
}
