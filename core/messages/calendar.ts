/** What is wrong with an event of a calendar, and the line it begins in. */
export type CalendarFault = Readonly<{ line: number }> &
  (
    | Readonly<{ code: 'noCalendar' | 'unreadable' | 'notEnded' | 'noStart' | 'allDay' | 'oddLength' }>
    | Readonly<{ code: 'unknownZone'; zone: string }>
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
  }
}
