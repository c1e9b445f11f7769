const formats = new Map<string, Intl.DateTimeFormat>()

/** "18:05" on a clock of that time zone; making a formatter takes longer than using it. */
export function clockTime(ms: number, timeZone: string): string {
  const format =
    formats.get(timeZone) ??
    new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' })
  formats.set(timeZone, format)
  return format.format(ms)
}
