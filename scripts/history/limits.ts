import type { Limit } from '../../core/riders/limits/limits'
import { studioDay } from '../../core/messages/words/dates'
import { recordLimit } from '../../server/riders/limits'
import { STUDIO } from '../netloftHall'
import { daysBefore, memberId, type Hall } from './hall'

/** Days ago, and the limit of the rider with this index. */
const LIMITS: readonly (readonly [rider: number, days: number, limit: Omit<Limit, 'since'>])[] = [
  [4, 90, { kind: 'rides', rides: 'upright' }],
  [4, 90, { kind: 'touch', yes: true }],
  [6, 700, { kind: 'ankle', side: 'left' }],
  [8, 60, { kind: 'legDifference', side: 'right', mm: 8 }],
  [10, 12, { kind: 'heart' }],
  [12, 45, { kind: 'pregnancy', weeks: 14, clearedBy: 'Dr Amble' }],
  [15, 120, { kind: 'operation', region: 'knee', side: 'right', clearedBy: 'Dr Sorrow-Finch' }],
  [20, 200, { kind: 'rides', rides: 'roadLow' }],
  [26, 30, { kind: 'injury', region: 'shoulder', side: 'left' }],
  [33, 80, { kind: 'firstFoot', side: 'left' }],
  [33, 80, { kind: 'sitsAt', mm: -15 }],
  [41, 50, { kind: 'touch', yes: false }],
]

/** Limits of a dozen riders, one of them waiting for a clinician's word. */
export async function addLimits({ db, now, scopes }: Hall): Promise<void> {
  for (const [n, [rider, days, limit]] of LIMITS.entries()) {
    const at = daysBefore(now, days)
    const since = studioDay(at, STUDIO.timeZone)
    const stored = { id: `history-limit-${n}`, memberId: memberId(rider), limit: { ...limit, since } }
    await recordLimit(db, scopes[n % 2], stored, at)
  }
}
