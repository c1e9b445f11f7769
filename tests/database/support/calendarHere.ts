import { readCalendar, type CalendarWindow } from '@/server/classes/calendar/calendar'

/** Instead of the thread, which is a bundle beside a build: read at once. */
export const readCalendarInThread = async (text: string, asked: CalendarWindow) => readCalendar(text, asked)
