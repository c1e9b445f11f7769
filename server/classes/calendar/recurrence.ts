import ICAL from 'ical.js'
import { clockAt, isUtc, isZone, momentOf } from './zones'

/** Maximum number of occurrences read from one event. */
const MAX_OCCURRENCES = 1000
const HOUR_MS = 3_600_000
const DAY_MS = 24 * HOUR_MS
/** Larger than any UTC offset. Times outside the window by more than this skip the zone lookup. */
const MAX_OFFSET_MS = 15 * HOUR_MS

export type Window = Readonly<{ from: Date; to: Date }>

/**
 * Occurrences of a recurring event within a window, in local time of `zone`: RRULE and RDATE minus EXDATE, in any mix
 * of zones. Iteration starts near the window. Does not return for a rule that never matches: the caller must limit the
 * run time.
 */
export function occurrences(component: ICAL.Component, start: ICAL.Time, zone: string, window: Window): ICAL.Time[] {
  const own = isUtc(start) ? 'UTC' : zone
  const left = new Set(
    valuesOf(component, 'exdate').flatMap(({ time, tzid }) => (time.isDate ? [dayOf(time)] : [keyOf(time, tzid, own)])),
  )
  const found = new Map<string, ICAL.Time>()
  const rules = component.getAllProperties('rrule').map((property) => property.getFirstValue() as ICAL.Recur)
  for (const rule of rules) for (const time of timesOfRule(rule, start, zone, window)) found.set(String(time), time)
  const single = valuesOf(component, 'rdate').map(({ time, tzid }) => timeOf(keyOf(time, tzid, own)))
  for (const time of rules.length === 0 ? [start, ...single] : single)
    if (isWithin(momentOf(time, zone), window)) found.set(String(time), time)
  return [...found.values()]
    .filter((time) => !left.has(String(time)) && !left.has(dayOf(time)))
    .sort((a, b) => a.compare(b))
    .slice(0, MAX_OCCURRENCES)
}

/** Converts a `RECURRENCE-ID` to the local time of its series, so that it matches an occurrence in another zone. */
export function occurrenceKey(
  recurrenceId: ICAL.Time,
  tzid: string | undefined,
  series: ICAL.Time,
  zone: string,
): string {
  return keyOf(recurrenceId, tzid, isUtc(series) ? 'UTC' : zone)
}

const isWithin = (at: Date, { from, to }: Window): boolean => at >= from && at <= to
const dayOf = (time: ICAL.Time): string => String(time).slice(0, 10)
const timeOf = (key: string): ICAL.Time => ICAL.Time.fromDateTimeString(key)

/** Converts a time to the zone of the series. A floating time is already in that zone. */
function keyOf(time: ICAL.Time, tzid: string | undefined, own: string): string {
  const its = isUtc(time) ? 'UTC' : tzid && isZone(tzid) ? tzid : own
  return its === own ? String(time) : clockAt(momentOf(time, its), own)
}

type Value = Readonly<{ time: ICAL.Time; tzid: string | undefined }>

function valuesOf(component: ICAL.Component, name: 'exdate' | 'rdate'): Value[] {
  return component.getAllProperties(name).flatMap((property) =>
    property.getValues().map((value): Value => {
      // RDATE may contain periods; only their start matters.
      const time = value instanceof ICAL.Period ? value.start : (value as ICAL.Time)
      return { time, tzid: property.getFirstParameter('tzid') }
    }),
  )
}

function timesOfRule(rule: ICAL.Recur, start: ICAL.Time, zone: string, window: Window): ICAL.Time[] {
  const iterator = new ICAL.RecurIterator({
    rule: withLocalEnd(rule, start, zone),
    dtstart: startNear(rule, start, window.from.getTime() - 3 * DAY_MS),
  })
  const found: ICAL.Time[] = []
  while (found.length < MAX_OCCURRENCES) {
    const next = iterator.next() as ICAL.Time | null
    if (!next) break
    const roughly = Date.UTC(next.year, next.month - 1, next.day, next.hour, next.minute)
    if (roughly < window.from.getTime() - MAX_OFFSET_MS) continue
    if (roughly > window.to.getTime() + MAX_OFFSET_MS) break
    if (isWithin(momentOf(next, zone), window)) found.push(next.clone())
  }
  return found
}

/**
 * Converts UNTIL to the zone of DTSTART. RFC 5545 requires UTC if DTSTART has a zone (3.3.10), and the library compares
 * local times. A date-valued UNTIL includes that day.
 */
function withLocalEnd(rule: ICAL.Recur, start: ICAL.Time, zone: string): ICAL.Recur {
  const { until } = rule
  if (!until) return rule
  const local = rule.clone()
  if (until.isDate) local.until = timeOf(`${dayOf(until)}T23:59:59${isUtc(start) ? 'Z' : ''}`)
  else local.until = timeOf(keyOf(until, undefined, isUtc(start) ? 'UTC' : zone))
  return local
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))
const lcm = (a: number, b: number): number => (a / gcd(a, b)) * b
/** The Gregorian calendar repeats after 28 years, from 1901 to 2099. */
const CALENDAR_CYCLE_YEARS = 28

/**
 * Moves the start forward by a whole number of periods, so that the rule yields the same later occurrences. Returns the
 * original start for rules with COUNT and for rules that start near the window.
 */
function startNear({ freq, interval, count }: ICAL.Recur, start: ICAL.Time, beforeMs: number): ICAL.Time {
  if (count !== null && count !== undefined) return start
  const startMs = Date.UTC(start.year, start.month - 1, start.day)
  const near = start.clone()
  const days = STRIDE_DAYS[freq]?.(interval)
  if (days !== undefined) {
    const strides = Math.floor((beforeMs - startMs) / (days * DAY_MS))
    if (strides > 0) near.adjust(strides * days, 0, 0, 0)
    return near
  }
  const months = freq === 'MONTHLY' ? interval : freq === 'YEARLY' ? 12 * interval : 0
  const [year, last] = [start.year, new Date(beforeMs).getUTCFullYear() - 1]
  if (months === 0 || year < 1901 || last > 2099) return start
  const years = lcm(12 * CALENDAR_CYCLE_YEARS, months) / 12
  near.year += Math.max(0, Math.floor((last - year) / years)) * years
  return near
}

/** Period of a rule in whole days, by frequency and interval. */
const STRIDE_DAYS: Readonly<Record<string, (interval: number) => number>> = {
  WEEKLY: (interval) => 7 * interval,
  DAILY: (interval) => interval,
  HOURLY: (interval) => lcm(24, interval) / 24,
  MINUTELY: (interval) => lcm(1440, interval) / 1440,
  SECONDLY: (interval) => lcm(86_400, interval) / 86_400,
}
