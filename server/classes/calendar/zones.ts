import { Temporal } from '@js-temporal/polyfill'
import type ICAL from 'ical.js'

/** Time zone of a property: its TZID if valid, else the studio's zone; `unknown` is an invalid TZID. */
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
 * Converts a local time to an instant. UTC times ignore `zone`. An ambiguous local time is the first of the two; a
 * skipped local time uses the offset before the gap (RFC 5545, 3.3.5).
 */
export function momentOf(time: ICAL.Time, zone: string): Date {
  const { year, month, day, hour, minute, second } = time
  if (isUtc(time)) return new Date(Date.UTC(year, month - 1, day, hour, minute, second))
  const clock = Temporal.PlainDateTime.from({ year, month, day, hour, minute, second })
  return new Date(clock.toZonedDateTime(zone, { disambiguation: 'compatible' }).epochMilliseconds)
}

/** Formats an instant as local time in a zone, "2026-11-03T19:00:00"; UTC gets a trailing Z. */
export function clockAt(moment: Date, zone: string | 'UTC'): string {
  const at = Temporal.Instant.fromEpochMilliseconds(moment.getTime())
  const clock = at.toZonedDateTimeISO(zone).toPlainDateTime().toString({ smallestUnit: 'second' })
  return zone === 'UTC' ? `${clock}Z` : clock
}
