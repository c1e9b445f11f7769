import { Type, type Static } from '@sinclair/typebox'
import Ajv from 'ajv'

/** A moment with its zone (RFC 3339), "2026-11-26T18:00:00+01:00"; without one it is no moment. */
const moment = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}(:\\d{2}(\\.\\d+)?)?(Z|[+-]\\d{2}:\\d{2})$' })
const name = (most: number) => Type.String({ minLength: 1, maxLength: most, pattern: '\\S' })

/** A class and a booking as a booking service sends them (docs/booking-service.md); other fields are ignored. */
const classSchema = Type.Object({
  id: name(150),
  title: name(120),
  room: Type.Optional(Type.String({ maxLength: 120 })),
  startsAt: moment,
  endsAt: moment,
  cancelled: Type.Optional(Type.Boolean()),
})
const bookingSchema = Type.Object({
  id: name(150),
  class: name(150),
  name: name(120),
  comesMinBefore: Type.Optional(Type.Integer({ minimum: -600, maximum: 600 })),
  state: Type.Union([Type.Literal('booked'), Type.Literal('cancelled')]),
})
export type FeedClass = Readonly<Static<typeof classSchema>>
export type FeedBooking = Readonly<Static<typeof bookingSchema>>
export type FeedFault = Readonly<{ list: 'classes' | 'bookings'; index: number }>

export type BookingFeed = Readonly<{
  classes: readonly FeedClass[]
  bookings: readonly FeedBooking[]
  /** Entries that cannot be read; the others count. */
  faults: readonly FeedFault[]
}>

const ajv = new Ajv({ strict: false })
const isClass = ajv.compile<FeedClass>(classSchema)
const isBooking = ajv.compile<FeedBooking>(bookingSchema)

const MAX_ENTRIES = 5000
const DAY_MS = 86_400_000

/**
 * A booking service's answer, entry by entry: faults are reported and left out. Null where it is no answer of one
 * at all.
 */
export function readBookingFeed(answer: unknown): BookingFeed | null {
  if (typeof answer !== 'object' || answer === null) return null
  const { classes, bookings } = answer as Record<string, unknown>
  if (!Array.isArray(classes) || !Array.isArray(bookings)) return null
  if (classes.length > MAX_ENTRIES || bookings.length > MAX_ENTRIES) return null
  const faults: FeedFault[] = []
  const those = <T>(list: FeedFault['list'], entries: readonly unknown[], fits: (entry: unknown) => entry is T): T[] =>
    entries.filter((entry, index): entry is T => {
      const good = fits(entry)
      if (!good) faults.push({ list, index })
      return good
    })
  return {
    classes: those('classes', classes, (entry): entry is FeedClass => isClass(entry) && lasts(entry)),
    bookings: those('bookings', bookings, (entry): entry is FeedBooking => isBooking(entry)),
    faults,
  }
}

/** Whether a class ends after it begins, on days there are, within a day. */
function lasts({ startsAt, endsAt }: FeedClass): boolean {
  const minutes = Date.parse(endsAt) - Date.parse(startsAt)
  return minutes > 0 && minutes <= DAY_MS
}
