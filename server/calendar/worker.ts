import { readCalendar, type CalendarAsked, type CalendarRead } from './calendar'

/** One calendar, in a thread of its own: a rule without an end, or a flood of them, holds nobody else up. */
export default function read({ text, asked }: Readonly<{ text: string; asked: CalendarAsked }>): CalendarRead {
  return readCalendar(text, asked)
}
