import { readCalendar, type CalendarAsked, type CalendarRead } from './calendar'

/** Reads one calendar in a worker thread, so that slow rules do not block the event loop. */
export default function read({ text, asked }: Readonly<{ text: string; asked: CalendarAsked }>): CalendarRead {
  return readCalendar(text, asked)
}
