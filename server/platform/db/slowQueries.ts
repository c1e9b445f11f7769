import type { Pool } from 'mysql2/promise'
import pino from 'pino'

/** A query that took longer is logged, ms. */
const SLOW_MS = 500
const MAX_STATEMENT_LENGTH = 600

type Query = (...given: readonly unknown[]) => { once?: (event: 'end', done: () => void) => unknown }
/** Where lines of the log go. */
export type SlowLog = (line: Readonly<{ sql: string; ms: number }>) => void

let log: pino.Logger | undefined
const toServerLog: SlowLog = (line) => {
  log ??= pino({ base: null, timestamp: pino.stdTimeFunctions.isoTime })
  log.warn(line, 'slow query')
}

/** Logs queries of a pool that take longer than `slowMs`: the statement with its placeholders, never a value. */
export function logSlowQueries(pool: Pool, { slowMs = SLOW_MS, write = toServerLog } = {}): void {
  pool.pool.on('connection', (opened) => {
    const connection = opened as unknown as { query: Query }
    const query = connection.query.bind(connection)
    connection.query = (...given) => {
      // Before it is sent: the driver writes the values into the same field.
      const sql = statementOf(given[0]).slice(0, MAX_STATEMENT_LENGTH)
      const began = performance.now()
      const sent = query(...given)
      sent.once?.('end', () => {
        const ms = Math.round(performance.now() - began)
        if (ms >= slowMs) write({ sql, ms })
      })
      return sent
    }
  })
}

/** The statement of a text, of options, or of a query of the driver. */
const statementOf = (given: unknown): string =>
  typeof given === 'string' ? given : String((given as { sql?: unknown } | null)?.sql ?? '')
