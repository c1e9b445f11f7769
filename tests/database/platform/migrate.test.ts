/** @jest-environment node */
import { drizzle } from 'drizzle-orm/mysql2'
import { readMigrationFiles } from 'drizzle-orm/migrator'
import { createConnection, type Connection } from 'mysql2/promise'
import { join } from 'node:path'
import type { Database } from '@/server/platform/db/connection'
import { migrate } from '@/server/platform/db/migrate'

const FOLDER = join(process.cwd(), 'server/platform/db/migrations')
const STATEMENTS = readMigrationFiles({ migrationsFolder: FOLDER }).flatMap((file) =>
  file.sql.map((text) => ({ file, text })),
)
const NAME = `saddle_migrate_${process.pid}`

let connection: Connection
/** A database of its own beside the test's, and what to ask it through. */
async function emptyDatabase(): Promise<Database> {
  await connection.query(`DROP DATABASE IF EXISTS ${NAME}`)
  await connection.query(`CREATE DATABASE ${NAME} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`)
  await connection.query(`USE ${NAME}`)
  return drizzle(connection)
}
async function tables(): Promise<string[]> {
  const [rows] = await connection.query(
    'SELECT table_name AS name, COUNT(*) AS columns FROM information_schema.columns WHERE ' +
      'table_schema = DATABASE() GROUP BY table_name ORDER BY 1',
  )
  return (rows as { name: string; columns: number }[])
    .filter((r) => !r.name.startsWith('__'))
    .map((r) => `${r.name} ${r.columns}`)
}
async function constraints(): Promise<string[]> {
  const [rows] = await connection.query(
    'SELECT CONCAT(table_name, " ", constraint_name) AS name FROM ' +
      'information_schema.table_constraints WHERE table_schema = DATABASE() ORDER BY 1',
  )
  return (rows as { name: string }[]).map((r) => r.name)
}

beforeAll(async () => {
  connection = await createConnection({ uri: process.env.DATABASE_URL })
})
afterAll(async () => {
  await connection.query(`DROP DATABASE IF EXISTS ${NAME}`)
  await connection.end()
})

test('an empty database is brought to the newest, and a second start carries out nothing', async () => {
  const db = await emptyDatabase()
  expect(await migrate(db, FOLDER)).toBe(STATEMENTS.length)
  expect(await migrate(db, FOLDER)).toBe(0)
})

test('resumes after a kill at every statement, before and after its progress is recorded', async () => {
  await migrate(await emptyDatabase(), FOLDER)
  const [allTables, allConstraints] = [await tables(), await constraints()]
  const db = await emptyDatabase()
  const executed = new Set<string>()
  // Each start is killed right after the first query that changes the database and was not executed before.
  const startOnce = () => {
    let isKilled = false
    const execute = async (query: Parameters<Database['execute']>[0]) => {
      if (isKilled) throw new Error('killed')
      const answer = await db.execute(query)
      const text = JSON.stringify((query as unknown as { queryChunks: unknown[] }).queryChunks)
      if (!/SELECT .* FROM __|CREATE TABLE IF NOT EXISTS __/.test(text) && !executed.has(text)) {
        executed.add(text)
        isKilled = true
      }
      return answer
    }
    return migrate({ execute } as unknown as Database, FOLDER)
  }
  let kills = 0
  while (await startOnce().then(() => false, isKill)) kills += 1
  expect(kills).toBeGreaterThan(2 * STATEMENTS.length)
  expect(await tables()).toEqual(allTables)
  expect(await constraints()).toEqual(allConstraints)
})
/** Rethrows what is no kill. */
function isKill(error: Error): true {
  if (error.message !== 'killed') throw error
  return true
}

test(
  'a database left half-way by the earlier migrator, which stored no count, is brought to ' + 'the newest as well',
  async () => {
    const db = await emptyDatabase()
    for (const { text } of STATEMENTS.slice(0, 9)) await connection.query(text)
    await connection.query(
      'CREATE TABLE __drizzle_migrations (id SERIAL PRIMARY KEY, hash text NOT NULL, created_at bigint)',
    )
    await migrate(db, FOLDER)
    expect(await tables()).toContain('bike_assignment 6')
  },
)

test('a real fault of a statement is no half-done one: it is reported, and nothing after it runs', async () => {
  const db = await emptyDatabase()
  await connection.query('CREATE TABLE user (id int PRIMARY KEY)')
  await expect(migrate(db, FOLDER)).rejects.toThrow()
})

test(
  'data of earlier versions moves: names become lines, of two open set-ups the later stays ' +
    'open, who sits where holds, all belongs to the studio',
  async () => {
    const db = await emptyDatabase()
    const [first, second] = readMigrationFiles({ migrationsFolder: FOLDER })
    for (const file of [first, second]) for (const text of file.sql) await connection.query(text)
    await connection.query(
      'CREATE TABLE __drizzle_migrations (id SERIAL PRIMARY KEY, hash text NOT NULL, created_at bigint)',
    )
    for (const file of [first, second])
      await connection.query('INSERT INTO __drizzle_migrations (hash, created_at) VALUES (?, ?)', [
        file.hash,
        file.folderMillis,
      ])
    const [at, later] = ['2026-01-02 03:04:05.006', '2026-01-02 04:04:05.006']
    await connection.query("INSERT INTO user (id, name, email) VALUES ('u', 'U', 'u@x.example')")
    await connection.query("INSERT INTO studio VALUES ('s', 'S', 'P', 'Europe/Oslo', '{}')")
    const type = (id: string, line: string, version: number, name: string) =>
      connection.query(
        'INSERT INTO bike_type (id, studio_id, line_id, version, definition, sheet, made_at) ' +
          "VALUES (?, 's', ?, ?, ?, '{}', ?)",
        [id, line, version, JSON.stringify({ name }), at],
      )
    await type('t1', 'l1', 1, 'Old name')
    await type('t2', 'l1', 2, 'Sorrel')
    await type('t3', 'l2', 1, 'Sorrel')
    for (const n of [1, 2])
      await connection.query("INSERT INTO bike (id, studio_id, type_id, number, own) VALUES (?, 's', 't2', ?, '{}')", [
        `b${n}`,
        n,
      ])
    await connection.query(
      "INSERT INTO member (id, studio_id, name, added_at, added_by) VALUES ('m', 's', 'M', ?, 'u')",
      [at],
    )
    for (const [id, started] of [
      ['x', at],
      ['y', later],
    ])
      await connection.query(
        'INSERT INTO setup (id, member_id, bike_id, type_id, own, started_at, started_by) VALUES ' +
          "(?, 'm', 'b1', 't2', '{}', ?, 'u')",
        [id, started],
      )
    for (const [id, bikeId] of [
      ['1', 'b1'],
      ['2', 'b2'],
    ])
      await connection.query(
        "INSERT INTO seating (id, bike_id, member_id, day, at, `by`) VALUES (?, ?, 'm', '2026-01-02', ?, 'u')",
        [id, bikeId, at],
      )

    await connection.query("INSERT INTO bike_reading (id, bike_id, `row`, at, `by`) VALUES ('r', 'b1', ?, ?, 'u')", [
      JSON.stringify({ kind: 'tape', anew: true, marks: {}, lengths: { stackMm: 700 } }),
      at,
    ])

    await migrate(db, FOLDER)
    const rows = async (query: string) => (await connection.query(query))[0]
    expect(await rows('SELECT id, name FROM bike_type_line ORDER BY id')).toEqual([
      { id: 'l1', name: 'Sorrel' },
      { id: 'l2', name: 'Sorrel (2)' },
    ])
    expect(await rows('SELECT id, open_key FROM setup ORDER BY id')).toEqual([
      { id: 'x', open_key: null },
      { id: 'y', open_key: 'm/b1' },
    ])
    expect(await rows('SELECT bike_id, member_id FROM bike_assignment')).toEqual([{ bike_id: 'b2', member_id: 'm' }])
    expect(await rows('SELECT id, studio_id, role FROM user')).toEqual([{ id: 'u', studio_id: 's', role: 'manager' }])
    expect(await rows('SELECT studio_id, created_by, `row` FROM bike_reading')).toEqual([
      {
        studio_id: 's',
        created_by: 'u',
        row: { kind: 'tape', marks: {}, lengths: { stackMm: 700 }, resetsBaseline: true },
      },
    ])
    expect(await rows('SELECT DISTINCT studio_id FROM setup')).toEqual([{ studio_id: 's' }])
    expect(await rows('SELECT id, studio_id, member_id FROM bike_assignment_log ORDER BY id')).toEqual([
      { id: '1', studio_id: 's', member_id: 'm' },
      { id: '2', studio_id: 's', member_id: 'm' },
    ])
  },
)
