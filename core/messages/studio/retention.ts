import { KEPT, type Kept, type Retention } from '../../riders/retention/retention'
import { formatList } from '../words/phrases'

/** What may be deleted after a time, as a heading and in a line. */
export const KEPT_TEXT: Readonly<Record<Kept, Readonly<{ title: string; about: string }>>> = Object.freeze({
  notes: { title: 'Notes in class', about: 'signs, cues, and lines after class' },
  complaints: { title: 'Complaints', about: 'closed ones, with their trials' },
  sets: { title: 'Earlier numbers', about: 'no longer in force, with the set-ups behind them' },
})

/** "12 months", "2 years", "for good" */
export function formatMonths(months: number | null): string {
  if (months === null) return 'for good'
  return months % 12 === 0 && months > 12 ? `${months / 12} years` : `${months} months`
}

const ONE: Readonly<Record<Kept, string>> = { notes: 'note', complaints: 'complaint', sets: 'set of numbers' }
const MANY: Readonly<Record<Kept, string>> = { notes: 'notes', complaints: 'complaints', sets: 'sets of numbers' }

/** "Today 120 notes and 3 complaints would go." */
export function formatRetentionPreview(counts: Readonly<Record<Kept, number>>): string {
  const parts = KEPT.filter((kind) => counts[kind] > 0).map(
    (kind) => `${counts[kind]} ${counts[kind] === 1 ? ONE[kind] : MANY[kind]}`,
  )
  return parts.length === 0 ? 'Today nothing would go.' : `Today ${formatList(parts)} would go, for good.`
}

/** Whether something is deleted earlier than before. */
export const isShorter = (before: Retention, after: Retention): boolean =>
  KEPT.some((kind) => (after[kind] ?? Infinity) < (before[kind] ?? Infinity))
