import { CARE_PARTS, USUAL_INTERVALS } from '../../core/bikes/care/care'
import { bikeCare } from '../../server/bikes/tables'
import type { DbExecutor } from '../../server/platform/db/connection'
import { STUDIO } from '../netloftHall'
import { daysBefore } from './hall'

/** A part of the demo that was replaced: which, on which bike, by what. */
const REPLACED = { number: 18, part: 'straps', daysAgo: 12, note: 'both, with wider ones' } as const
/** A bike whose bar clamp nobody saw to in time. */
const LATE = { number: 7, part: 'barClamp', daysAgo: 37 } as const

/** When each part of each machine was last seen to: staggered over its interval, on one bike too long ago. */
export async function careHistory(
  db: DbExecutor,
  bikes: readonly Readonly<{ number: number }>[],
  people: readonly Readonly<{ id: string }>[],
  now: Date,
): Promise<void> {
  const rows = bikes.flatMap(({ number }) =>
    CARE_PARTS.flatMap((part, i) => {
      const { days } = USUAL_INTERVALS[part] ?? {}
      if (days === undefined) return []
      const isLate = number === LATE.number && part === LATE.part
      // Rides come first on busy bikes: none is seen to longer ago than three weeks.
      const daysAgo = isLate ? LATE.daysAgo : (7 * number + 5 * i) % Math.min(days - 2, 21)
      return [
        {
          id: `care-${number}-${part}`,
          studioId: STUDIO.id,
          bikeId: `bike-${number}`,
          part,
          deed: 'done' as const,
          note: '',
          createdAt: daysBefore(now, daysAgo),
          createdBy: people[(number + i) % people.length].id,
        },
      ]
    }),
  )
  const { number, part, daysAgo, note } = REPLACED
  const replaced = {
    ...rows[0],
    id: `care-${number}-${part}-new`,
    bikeId: `bike-${number}`,
    part,
    deed: 'replaced' as const,
    note,
    createdAt: daysBefore(now, daysAgo),
  }
  await db.insert(bikeCare).values([...rows, replaced])
}
