/** @jest-environment node */
import { eq } from 'drizzle-orm'
import { drizzle } from 'drizzle-orm/mysql2'
import { createPool } from 'mysql2/promise'
import { logSlowQueries, type SlowLog } from '@/server/platform/db/slowQueries'
import { member } from '@/server/riders/tables'

const SECRET = 'Kept Out Of Logs'

test('a slow query is logged with its placeholders and time, and none of its values; a fast one is not', async () => {
  const lines: Parameters<SlowLog>[0][] = []
  const pool = createPool({ uri: process.env.DATABASE_URL })
  logSlowQueries(pool, { slowMs: 40, write: (line) => lines.push(line) })
  await pool.query('SELECT SLEEP(?), ?', [0.1, SECRET])
  expect(lines).toEqual([{ sql: 'SELECT SLEEP(?), ?', ms: expect.any(Number) }])
  expect(lines[0].ms).toBeGreaterThanOrEqual(90)
  await pool.end()

  const every: Parameters<SlowLog>[0][] = []
  const watched = createPool({ uri: process.env.DATABASE_URL })
  logSlowQueries(watched, { slowMs: 0, write: (line) => every.push(line) })
  await drizzle(watched).select({ id: member.id }).from(member).where(eq(member.name, SECRET))
  expect(every.at(-1)?.sql).toContain('`member`.`name` = ?')
  expect(JSON.stringify(every)).not.toContain(SECRET)
  await watched.end()

  const none: Parameters<SlowLog>[0][] = []
  const quick = createPool({ uri: process.env.DATABASE_URL })
  logSlowQueries(quick, { slowMs: 600_000, write: (line) => none.push(line) })
  await quick.query('SELECT 1')
  expect(none).toEqual([])
  await quick.end()
})
