/** @jest-environment node */
import { drizzle } from 'drizzle-orm/mysql2'
import { createPool, type Pool } from 'mysql2/promise'
import { findChangeSince, listBikeReadings } from '@/server/bikes/bikeReadings'
import { listSetupsBetween } from '@/server/setups/finishedSetups'
import { findBike, listBikes } from '@/server/bikes/bikes'
import { listFaults, lastInspections, listInspections } from '@/server/bikes/inspections'
import { listTapeReadings } from '@/server/bikes/tapeReadings'
import { listVersions, listTypes } from '@/server/bikes/versions'
import { listAssignments } from '@/server/classes/assignments'
import { findClass, listClasses } from '@/server/classes/classes'
import { ridersWithKneeNotes } from '@/server/classes/planning'
import { lastBikes, listRoster } from '@/server/classes/roster'
import { listLooks, listRoomCues } from '@/server/classes/watch'
import { listPlaces } from '@/server/classes/rooms/rooms'
import { listNotesOfClass, listNotesOfMember, listNotesOfMembers } from '@/server/classes/notes'
import { complaintsToAnswer, listComplaints, openComplaints } from '@/server/comfort/complaints'
import { studioPicture } from '@/server/pages/comfort/picture'
import { listRides, ridersOfBike } from '@/server/comfort/rides'
import { listTrials, runningOnBikes, runningTrials } from '@/server/comfort/trials'
import { findLink, ownerOf } from '@/server/riders/memberPage/links'
import { latestHomeMeasures, listMessages } from '@/server/riders/memberPage/messages'
import { findByWords } from '@/server/riders/members/words'
import { currentEntries, listEntries } from '@/server/setups/register'
import { listEvidence } from '@/server/setups/evidence'
import { listCheckedSetups, listRecentSetups, observerErrorOf } from '@/server/setups/learned'
import { machineChecks } from '@/server/setups/riderResiduals'
import { listOpenSetups, listFinishedSetups, findSetup } from '@/server/setups/setups'
import type { Scope } from '@/server/platform/accounts/scope'
import type { Database } from '@/server/platform/db/connection'
import { findMember, findMembers, findMembersByName } from '@/server/riders/members/members'
import { searchMembers } from '@/server/pages/riders/members'
import { latestNumbers } from '@/server/setups/latestNumbers'

/** Tables that are small in any studio, a row a machine or fewer: reading them whole is no fault. */
const SMALL = new Set(['bike', 'bike_type', 'bike_type_line', 'bike_fault', 'user', 'studio'])

let pool: Pool
let asked: { sql: string; params: unknown[] }[]
let db: Database

beforeAll(() => {
  pool = createPool({ uri: process.env.DATABASE_URL, timezone: 'Z' })
  const logger = { logQuery: (sql: string, params: unknown[]) => void asked.push({ sql, params }) }
  db = drizzle(pool, { mode: 'default', logger }) as unknown as Database
})
beforeEach(() => {
  asked = []
})
afterAll(() => pool.end())

const now = new Date('2026-05-06T07:08:09Z')
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const QUERIES: Readonly<Record<string, () => Promise<unknown>>> = {
  searchMembers: () => searchMembers(db, scope, { typed: 'kes', withoutNumbers: false, page: 1 }),
  'searchMembers, only without numbers': () => searchMembers(db, scope, { typed: '', withoutNumbers: true, page: 1 }),
  'searchMembers, everybody': () => searchMembers(db, scope, { typed: '', withoutNumbers: false, page: 1 }),
  latestNumbers: () => latestNumbers(db, scope, ['member-01', 'member-02', 'member-03']),
  findMembers: () => findMembers(db, scope, 'to', 40),
  findMembersByName: () => findMembersByName(db, scope, 'Maren Tolle'),
  findByWords: () => findByWords(db, scope, 'mar to', 8),
  currentEntries: () => currentEntries(db, scope, ['member-01', 'member-02']),
  listEntries: () => listEntries(db, scope, 'member-01', { before: 'setup-member-01' }),
  findLink: () => findLink(db, scope, 'member-01', now),
  ownerOf: () => ownerOf(db, 'x'.repeat(43), now),
  listMessages: () => listMessages(db, scope, 'member-01'),
  latestHomeMeasures: () => latestHomeMeasures(db, scope, 'member-01'),
  findMember: () => findMember(db, scope, 'member-01'),
  findSetup: () => findSetup(db, scope, 'setup-member-01'),
  listEvidence: () => listEvidence(db, scope, 'setup-member-01'),
  listFinishedSetups: () => listFinishedSetups(db, scope, 'member-01'),
  listOpenSetups: () => listOpenSetups(db, scope, 'member-01'),
  listRecentSetups: () => listRecentSetups(db, scope),
  machineChecks: () => machineChecks(db, scope, [], now),
  listCheckedSetups: () => listCheckedSetups(db, scope),
  ownEye: () => observerErrorOf(db, scope),
  listAssignments: () => listAssignments(db, scope, 'class-dawn'),
  listClasses: () => listClasses(db, scope, now, now),
  findClass: () => findClass(db, scope, 'class-dawn'),
  listRoster: () => listRoster(db, scope, 'class-dawn'),
  lastBikes: () => lastBikes(db, scope, ['member-01', 'member-02'], new Date()),
  listNotesOfClass: () => listNotesOfClass(db, scope, 'class-dawn'),
  listNotesOfMembers: () => listNotesOfMembers(db, scope, ['member-01', 'member-02'], now),
  listLooks: () => listLooks(db, scope, 'class-dawn'),
  listRoomCues: () => listRoomCues(db, scope, 'class-dawn'),
  ridersWithKneeNotes: () => ridersWithKneeNotes(db, scope, ['member-01', 'member-02'], now),
  listPlaces: () => listPlaces(db, scope),
  listNotesOfMember: () => listNotesOfMember(db, scope, 'member-01'),
  complaintsToAnswer: () => complaintsToAnswer(db, scope, 'member-05', new Date()),
  listComplaints: () => listComplaints(db, scope, 'member-05'),
  openComplaints: () => openComplaints(db, scope, ['member-04', 'member-05']),
  listTrials: () => listTrials(db, scope, 'member-05', new Date()),
  runningTrials: () => runningTrials(db, scope, ['member-04', 'member-05'], new Date()),
  runningOnBikes: () => runningOnBikes(db, scope, ['bike-1', 'bike-2'], new Date()),
  ridersOfBike: () => ridersOfBike(db, scope, 'bike-1', now),
  listRides: () => listRides(db, scope, 'member-05', new Date()),
  studioPicture: () => studioPicture(db, scope, new Date()),
  listBikes: () => listBikes(db, scope),
  findBike: () => findBike(db, scope, 'bike-1'),
  listTypes: () => listTypes(db, scope),
  listVersions: () => listVersions(db, scope, 'sorrel'),
  listTapeReadings: () => listTapeReadings(db, scope, 'sorrel'),
  listBikeReadings: () => listBikeReadings(db, scope, 'bike-1'),
  findChangeSince: () => findChangeSince(db, scope, 'bike-1', now),
  listFaults: () => listFaults(db, scope, 'bike-1'),
  lastInspections: () => lastInspections(db, scope),
  listInspections: () => listInspections(db, scope, 'bike-1'),
  listSetupsBetween: () => listSetupsBetween(db, scope, 'bike-1', now, now),
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
