/** What is wrong with a line of a list of classes; lines count from 1. */
export type ClassListFault = Readonly<{ line: number }> &
  (
    | Readonly<{ code: 'notAList' | 'tooLong' | 'noTitle' }>
    | Readonly<{ code: 'noHeading'; heading: string }>
    | Readonly<{
        code: 'noDay' | 'noTime' | 'oddMinutes' | 'oddComing' | 'riderTwice' | 'unknownName' | 'severalOfName'
        text: string
      }>
  )

/** "Line 4: nobody here is called Ann Other; add them first." */
export function formatClassListFault(fault: ClassListFault): string {
  const at = `Line ${fault.line}: `
  switch (fault.code) {
    case 'notAList':
      return 'This is no list with columns (CSV).'
    case 'tooLong':
      return 'This list has more than 20,000 lines.'
    case 'noHeading':
      return `The first line has no column “${fault.heading}”; day, start and class are needed.`
    case 'noTitle':
      return `${at}the class has no name; it was left out.`
    case 'noDay':
      return `${at}“${fault.text}” is not a day such as 2026-11-26. The line was left out.`
    case 'noTime':
      return `${at}“${fault.text}” is not a time such as 18:00. The line was left out.`
    case 'oddMinutes':
      return `${at}“${fault.text}” minutes is not the length of a class, 5 to 600. The line was left out.`
    case 'oddComing':
      return `${at}“${fault.text}” is not a number of minutes before the start. The booking was left out.`
    case 'riderTwice':
      return `${at}${fault.text} stands in this class twice; once is kept.`
    case 'unknownName':
      return `${at}nobody here is called ${fault.text}; add them first. The booking was left out.`
    case 'severalOfName':
      return `${at}more than one member is called ${fault.text}; book them by hand. The booking was left out.`
  }
}

/** What was taken from a calendar or a list. */
export type TimetableTaken = Readonly<{
  added: number
  changed: number
  unchanged: number
  cancelled: number
  booked: number
}>

const counted = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`

/** "3 classes new, 1 changed, 12 as they were; 14 bookings." */
export function formatTaken({ added, changed, unchanged, cancelled, booked }: TimetableTaken): string {
  const parts = [
    `${counted(added, 'class', 'classes')} new`,
    changed > 0 && `${changed} changed`,
    cancelled > 0 && `${cancelled} cancelled`,
    unchanged > 0 && `${unchanged} as they were`,
  ].filter(Boolean)
  return `${parts.join(', ')}${booked > 0 ? `; ${counted(booked, 'booking')}` : ''}.`
}

/** How a booking service or a calendar was found last; times as a clock shows them. */
export type SourceLine = Readonly<{
  /** "The booking service". */
  source: string
  readAt: string | null
  trouble: 'unreachable' | 'down' | 'nonsense' | 'notTaken' | 'skipped' | null
  since: string | null
  nextAt: string
  unknownNames: readonly string[]
  faults: number
}>

const TROUBLE: Readonly<Record<NonNullable<SourceLine['trouble']>, string>> = {
  unreachable: 'cannot be reached',
  down: 'says it is down',
  nonsense: 'sends what cannot be read',
  notTaken: 'was read, and the database did not take it',
  skipped: 'stopped the server twice while it was read, and is left out for a day',
}
const MAX_NAMES = 3

/** "The calendar was read at 17:42." or what is wrong since when, and names that are nobody's here. */
export function formatSourceStatus(line: SourceLine): string {
  const { source, readAt, trouble, since, nextAt, unknownNames, faults } = line
  const state = trouble
    ? `${source} ${TROUBLE[trouble]}${since ? ` since ${since}` : ''}; asked again at ${nextAt}. ` +
      'What it told before stays.'
    : `${source} was read at ${readAt}.`
  const more = unknownNames.length - MAX_NAMES
  const names =
    unknownNames.length > 0 &&
    `Booked, and no member here: ${unknownNames.slice(0, MAX_NAMES).join(', ')}${more > 0 ? ` and ${more} more` : ''}.`
  const broken = faults > 0 && `${faults} of its entries could not be read.`
  return [state, names, broken].filter(Boolean).join(' ')
}

/** That a class of an outside source loses changes made by hand, by source. */
export const OVERWRITTEN_BY_SOURCE: Readonly<Partial<Record<string, string>>> = {
  calendar: 'This class comes from a calendar. The next import sets its name and time again.',
  list: 'This class comes from a list. The next import sets its name and time again.',
  booking: 'This class comes from the booking service, which sets its name and time again.',
}
