import { readCalendar, type CalendarWindow, type CalendarRead } from './calendar'

/** Reads one calendar in a worker thread, so that slow rules do not block the event loop. */
export default function read({ text, asked: window }: Readonly<{ text: string; asked: CalendarWindow }>): CalendarRead {
  return readCalendar(text, window)
}
