import { Temporal } from '@js-temporal/polyfill'
import type ICAL from 'ical.js'

/** The zone of an event's start or end: the one it names where it is known, else the studio's. */
export function zoneOf(
  component: ICAL.Component,
  studio: string,
  of: 'dtstart' | 'dtend' | 'recurrence-id' = 'dtstart',
): Readonly<{ zone: string; unknown?: string }> {
  const named = component.getFirstProperty(of)?.getFirstParameter('tzid')
  if (!named) return { zone: studio }
  return isZone(named) ? { zone: named } : { zone: studio, unknown: named }
}

export function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    return true
  } catch {
    return false
  }
}

export const isUtc = (time: ICAL.Time): boolean => time.zone?.tzid === 'UTC'

/**
 * A time on a clock as a moment: its own where it says UTC, else by the zone's clock. A time that occurs twice is the
 * first, one that a change of the clock skips is as far after midnight as if it had not (RFC 5545, 3.3.5).
 */
export function momentOf(time: ICAL.Time, zone: string): Date {
  const { year, month, day, hour, minute, second } = time
  if (isUtc(time)) return new Date(Date.UTC(year, month - 1, day, hour, minute, second))
  const clock = Temporal.PlainDateTime.from({ year, month, day, hour, minute, second })
  return new Date(clock.toZonedDateTime(zone, { disambiguation: 'compatible' }).epochMilliseconds)
}

/** A moment on the clock of a zone, "2026-11-03T19:00:00"; in UTC with a Z. */
export function clockAt(moment: Date, zone: string | 'UTC'): string {
  const at = Temporal.Instant.fromEpochMilliseconds(moment.getTime())
  const clock = at.toZonedDateTimeISO(zone).toPlainDateTime().toString({ smallestUnit: 'second' })
  return zone === 'UTC' ? `${clock}Z` : clock
}
