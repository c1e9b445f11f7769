import { isId } from '../platform/ids'
import type { PlacesUndo, Seats } from './replan'

const MAX_LINES = 400
const STATES = ['booked', 'here', 'cancelled']
const ROWS = ['front', 'back', null]

/** An undo of places as a device sent it; null where it is malformed. */
export function readPlacesUndo(sent: unknown): PlacesUndo | null {
  const { after, seats, riders, added } = (sent ?? {}) as Partial<Record<keyof PlacesUndo, unknown>>
  const [afterRead, seatsRead, addedRead] = [readSeats(after), readSeats(seats), readList(added, isId)]
  const ridersRead = readList(riders, isLine)
  if (!afterRead || !seatsRead || !addedRead || !ridersRead) return null
  return {
    after: afterRead,
    seats: seatsRead,
    added: addedRead as string[],
    riders: ridersRead.map((line) => {
      const { memberId, state, comesMinBefore, rowWish, pinnedBikeId } = line as PlacesUndo['riders'][number]
      return { memberId, state, comesMinBefore, rowWish, pinnedBikeId }
    }),
  }
}

/** Pairs of ids in which no bike and no member occurs twice. */
function readSeats(sent: unknown): Seats | null {
  const pairs = readList(sent, (pair) => Array.isArray(pair) && pair.length === 2 && pair.every(isId)) as Seats | null
  if (!pairs) return null
  const isOnce = (side: 0 | 1) => new Set(pairs.map((pair) => pair[side])).size === pairs.length
  return isOnce(0) && isOnce(1) ? pairs : null
}

const readList = (sent: unknown, isValid: (one: unknown) => boolean): readonly unknown[] | null =>
  Array.isArray(sent) && sent.length <= MAX_LINES && sent.every(isValid) ? sent : null

function isLine(sent: unknown): boolean {
  const { memberId, state, comesMinBefore, rowWish, pinnedBikeId } = (sent ?? {}) as Record<string, unknown>
  return (
    isId(memberId) &&
    STATES.includes(state as string) &&
    Number.isInteger(comesMinBefore) &&
    Math.abs(comesMinBefore as number) <= 600 &&
    ROWS.includes(rowWish as string | null) &&
    (pinnedBikeId === null || isId(pinnedBikeId))
  )
}
