/** What is wrong with an event of a calendar, and the line it begins in. */
export type CalendarFault = Readonly<{ line: number }> &
  (
    | Readonly<{ code: 'noCalendar' | 'unreadable' | 'notEnded' | 'noStart' | 'allDay' | 'oddLength' }>
    | Readonly<{ code: 'unknownZone'; zone: string }>
    | Readonly<{ code: 'endless' | 'noTimeLeft'; name: string }>
    | Readonly<{ code: 'tooMany'; most: number }>
    | Readonly<{ code: 'gaveUp' }>
  )

/** "Line 12: this event has no start." */
export function formatCalendarFault(fault: CalendarFault): string {
  const at = `Line ${fault.line}: `
  switch (fault.code) {
    case 'noCalendar':
      return 'This is no calendar: it should begin with BEGIN:VCALENDAR.'
    case 'unreadable':
      return `${at}this event cannot be read; it was left out.`
    case 'notEnded':
      return `${at}this event does not end; it was left out.`
    case 'noStart':
      return `${at}this event has no start; it was left out.`
    case 'allDay':
      return `${at}this event is of whole days and no class; it was left out.`
    case 'oddLength':
      return `${at}this event ends before it begins, or lasts longer than a day; it was left out.`
    case 'unknownZone':
      return `${at}nobody knows the time zone ${fault.zone}; the studio’s was taken.`
    case 'endless':
      return `${at}the rule of “${fault.name}” does not come to an end; the event was left out.`
    case 'noTimeLeft':
      return `${at}reading took too long before “${fault.name}” was reached; it was left out. Split the calendar.`
    case 'tooMany':
      return `More than ${fault.most} times in the coming weeks; those after the first ${fault.most} were left out.`
    case 'gaveUp':
      return 'This calendar takes too much time or memory; nothing of it was taken.'
  }
}
