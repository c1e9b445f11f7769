import { join } from 'node:path'
import { Piscina } from 'piscina'
import type { CalendarAsked, CalendarRead } from './calendar'

/**
 * The thread itself gives up on an event after a second and on the whole after some: this much longer, ms, means that
 * it is stuck, and it is ended.
 */
const STUCK_MS = 30_000
/** What a calendar of the longest text there may be needs, many times over. */
const MEMORY_MB = 256
const LONGEST_QUEUE = 20

let pool: Piscina | null = null

/**
 * The events of an iCalendar text, read in a thread with limits of time and memory. Beyond these nothing is taken, and
 * the only fault says so.
 */
export async function readCalendarInThread(text: string, asked: CalendarAsked): Promise<CalendarRead> {
  pool ??= new Piscina({
    filename: join(process.cwd(), process.env.NEXT_DIST ?? '.next', 'compute', 'calendar.cjs'),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 60_000,
    maxQueue: LONGEST_QUEUE,
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
  })
  try {
    return (await pool.run({ text, asked }, { signal: AbortSignal.timeout(STUCK_MS) })) as CalendarRead
  } catch (error) {
    const { name, message, code } = error as NodeJS.ErrnoException
    const isLimit = name === 'AbortError' || name === 'TimeoutError' || code === 'ERR_WORKER_OUT_OF_MEMORY'
    if (isLimit || /queue/i.test(message)) return { events: [], faults: [{ line: 1, code: 'gaveUp' }] }
    throw error
  }
}

export async function closeCalendarThread(): Promise<void> {
  await pool?.destroy()
  pool = null
}
