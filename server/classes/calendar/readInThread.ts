import { join } from 'node:path'
import { Piscina } from 'piscina'
import type { CalendarWindow, CalendarRead } from './calendar'

/** Hard limit for one calendar, ms; the reader itself stops after 20 s. The pool then ends the thread. */
const TIMEOUT_MS = 60_000
/** Heap limit of the thread, MB. */
const MEMORY_MB = 256
const MAX_QUEUE = 20

const GAVE_UP: CalendarRead = Object.freeze({ events: [], faults: [{ line: 1, code: 'gaveUp' }] })

let pool: Piscina | null = null

/**
 * Reads an iCalendar text in a worker thread with time and memory limits. Returns no events and the fault `gaveUp` if
 * the thread exceeds a limit.
 */
export async function readCalendarInThread(text: string, window: CalendarWindow): Promise<CalendarRead> {
  pool ??= new Piscina({
    filename: join(process.cwd(), process.env.NEXT_DIST ?? '.next', 'compute', 'calendar.cjs'),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
  })
  if (pool.queueSize >= MAX_QUEUE) return GAVE_UP
  try {
    return (await pool.run({ text, asked: window }, { signal: AbortSignal.timeout(TIMEOUT_MS) })) as CalendarRead
  } catch (error) {
    const { name, code } = error as NodeJS.ErrnoException
    if (name === 'AbortError' || name === 'TimeoutError' || code === 'ERR_WORKER_OUT_OF_MEMORY') return GAVE_UP
    throw error
  }
}

export async function closeCalendarThread(): Promise<void> {
  await pool?.destroy()
  pool = null
}
