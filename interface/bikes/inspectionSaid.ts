import type { InspectionState } from '@/core/bike/inspection'

/** "good until Mon 7 Dec", "due since …", "out of use", in the studio's own days. */
export function inspectionSaid(state: InspectionState, timeZone: string): string {
  if (state.outcome === 'faulty') return 'out of use'
  if (state.outcome === 'never') return 'never looked over'
  const day = new Intl.DateTimeFormat('en-GB', { timeZone, day: 'numeric', month: 'short' }).format(state.dueAtMs)
  return state.outcome === 'due' ? `due since ${day}` : `good until ${day}`
}
