/** @jest-environment node */
import { drizzle } from 'drizzle-orm/mysql2'
import { createPool, type Pool } from 'mysql2/promise'
import type { Database } from '@/server/db/connection'
import * as schema from '@/server/db/schema'
import { bikeById, bikesOf } from '@/server/bikes/bikes'
import {
  changedSince,
  faultsOf,
  lastInspections,
  listInspections,
  readingsOf,
  savedBetween,
} from '@/server/bikes/machines'
import { typeLine, typeReadings, typesOf } from '@/server/bikes/types'
import { latestNumbers, memberById, membersLike, membersNamed, searchMembers } from '@/server/members/members'
import { assignmentsOn, notesOn, notesSince } from '@/server/notes/notes'
import { openSetupsOf, rowsOf, savedSetups, setupById } from '@/server/setups/setups'

/** Tables that are small in any studio, a row a machine or fewer: reading them whole is no fault. */
const SMALL = new Set(['bike', 'bike_type', 'bike_type_line', 'bike_fault', 'user', 'studio'])

let pool: Pool
let asked: { sql: string; params: unknown[] }[]
let db: Database

beforeAll(() => {
  pool = createPool({ uri: process.env.DATABASE_URL, timezone: 'Z' })
  const logger = { logQuery: (sql: string, params: unknown[]) => void asked.push({ sql, params }) }
  db = drizzle(pool, { schema, mode: 'default', logger }) as unknown as Database
})
beforeEach(() => {
  asked = []
})
afterAll(() => pool.end())

const now = new Date('2026-05-06T07:08:09Z')
const QUERIES: Readonly<Record<string, () => Promise<unknown>>> = {
  searchMembers: () => searchMembers(db, 'netloft-hall', { typed: 'kes', withoutNumbers: false, page: 1 }),
  'searchMembers, only without numbers': () =>
    searchMembers(db, 'netloft-hall', { typed: '', withoutNumbers: true, page: 1 }),
  'searchMembers, everybody': () => searchMembers(db, 'netloft-hall', { typed: '', withoutNumbers: false, page: 1 }),
  latestNumbers: () => latestNumbers(db, ['member-01', 'member-02', 'member-03']),
  membersLike: () => membersLike(db, 'netloft-hall', 'to', 40),
  membersNamed: () => membersNamed(db, 'netloft-hall', 'Maren Tolle'),
  memberById: () => memberById(db, 'member-01'),
  setupById: () => setupById(db, 'setup-member-01'),
  rowsOf: () => rowsOf(db, 'setup-member-01'),
  savedSetups: () => savedSetups(db, 'member-01'),
  openSetupsOf: () => openSetupsOf(db, 'member-01'),
  assignmentsOn: () => assignmentsOn(db, '2026-05-06'),
  notesSince: () => notesSince(db, now),
  notesOn: () => notesOn(db, 'member-01'),
  bikesOf: () => bikesOf(db, 'netloft-hall'),
  bikeById: () => bikeById(db, 'bike-1'),
  typesOf: () => typesOf(db, 'netloft-hall'),
  typeLine: () => typeLine(db, 'sorrel'),
  typeReadings: () => typeReadings(db, 'sorrel'),
  readingsOf: () => readingsOf(db, 'bike-1'),
  changedSince: () => changedSince(db, 'bike-1', now),
  faultsOf: () => faultsOf(db, 'bike-1'),
  lastInspections: () => lastInspections(db),
  listInspections: () => listInspections(db, 'bike-1'),
  savedBetween: () => savedBetween(db, 'bike-1', now, now),
}

test.each(Object.entries(QUERIES))('%s reads no large table without an index', async (_, query) => {
  await query()
  expect(asked.length).toBeGreaterThan(0)
  for (const { sql, params } of [...asked]) {
    const [plan] = (await pool.query(`EXPLAIN ${sql}`, params)) as unknown as [
      { table: string | null; type: string; key: string | null; possible_keys: string | null }[],
    ]
    const unindexed = plan.filter(
      (row) =>
        row.table &&
        row.key === null &&
        row.possible_keys === null &&
        !SMALL.has(row.table) &&
        !row.table.startsWith('<'),
    )
    expect(unindexed.map((row) => row.table)).toEqual([])
  }
})

test('the check itself finds a query that reads a large table whole', async () => {
  const [plan] = (await pool.query("EXPLAIN SELECT * FROM evidence WHERE `row` LIKE '%x%'")) as unknown as [
    { table: string; type: string; key: string | null; possible_keys: string | null }[],
  ]
  expect(plan[0]).toMatchObject({ table: 'evidence', type: 'ALL', key: null, possible_keys: null })
})
