/** @jest-environment node */
import { execFileSync } from 'node:child_process'
import { readdirSync, existsSync } from 'node:fs'
import { join } from 'node:path'
import { createPool } from 'mysql2/promise'
import { POST as operation } from '@/app/api/v1/[operation]/route'
import { POST as postOutbox } from '@/app/api/outbox/route'
import { createRng, type Rng } from '@/core/rng'
import { closeDatabase } from '@/server/db/connection'
import { HOLES_BIKE } from '@/core/testing/meanRider'

/**
 * Whatever is sent to whatever can be called, an answer comes back: a throw would be a page that breaks, or a status of
 * 500. Seeded, and mixed of junk and of what exists, so that it comes past the first check.
 */
jest.mock('@/server/compute/pool', () => jest.requireActual('./computeHere'))
jest.mock('@/server/calendar/readInThread', () => jest.requireActual('./calendarHere'))
jest.mock('next/headers', () => ({ headers: async () => new Headers({ 'x-forwarded-for': 'fuzz' }) }))
jest.mock('@/server/accounts/session', () => {
  const currentUser = async () => ({
    userId: 'ines-harrow',
    name: 'Ines Harrow',
    studioId: 'netloft-hall',
    role: 'manager',
  })
  return { currentUser, authorize: currentUser, requirePermission: currentUser, requireUser: currentUser }
})
/** Ends a session, and nothing else. */
const LEFT_OUT = ['signOut']

const ACTIONS = readdirSync(join(process.cwd(), 'interface'))
  .filter((folder) => existsSync(join(process.cwd(), 'interface', folder, 'actions.ts')))
  .flatMap((folder) => {
    // eslint-disable-next-line @typescript-eslint/no-require-imports -- whatever the module exports, by its name
    const exported = require(join(process.cwd(), 'interface', folder, 'actions')) as Record<string, unknown>
    return Object.entries(exported)
      .filter(([name, value]) => typeof value === 'function' && !LEFT_OUT.includes(name))
      .map(([name, value]) => [`${folder} ${name}`, value as (...args: unknown[]) => Promise<unknown>] as const)
  })
const PER_ACTION = 60
const MAX_ARGUMENTS = 6

const pick = <T>(rng: Rng, from: readonly T[]): T => from[Math.floor(rng.uniform() * from.length)]
const KNOWN = [
  'member-01',
  'bike-1',
  'bike-9',
  'class-dusk',
  'sorrel',
  'setup-member-01',
  'here',
  'metric',
  'keep',
  'usual',
]
const ODD: readonly unknown[] = [
  undefined,
  null,
  true,
  0,
  -1,
  2.5,
  NaN,
  1e300,
  10n,
  '',
  'x',
  '\u0000',
  '＝1',
  '2026-02-30',
  'y'.repeat(5000),
  [],
  [null],
  [[[]]],
  {},
  Object.create(null),
  new Map([['a', 1]]),
  new Date(NaN),
]
const FIELDS = ['id', 'name', 'plan', 'places', 'title', 'day', 'time', 'marks', 'evidence', 'kind', 'at', 'what', 'mm']

function value(rng: Rng, depth = 0): unknown {
  const choice = rng.uniform()
  if (choice < 0.35) return pick(rng, KNOWN)
  if (choice < 0.45) return crypto.randomUUID()
  if (choice < 0.8 || depth > 2) return pick(rng, ODD)
  if (choice < 0.88) return Array.from({ length: 3 }, () => value(rng, depth + 1))
  return Object.fromEntries(FIELDS.filter(() => rng.uniform() < 0.4).map((field) => [field, value(rng, depth + 1)]))
}

/** Random calls change settings, classes and riders, so they run on a seeded database of their own. */
const OWN = `saddle_fuzz_${process.pid}`
const shared = process.env.DATABASE_URL!

async function onServer(...statements: readonly string[]): Promise<void> {
  const pool = createPool({ uri: shared })
  for (const statement of statements) await pool.query(statement)
  await pool.end()
}

beforeAll(async () => {
  await onServer(
    `DROP DATABASE IF EXISTS ${OWN}`,
    `CREATE DATABASE ${OWN} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`,
  )
  const own = new URL(shared)
  own.pathname = `/${OWN}`
  process.env.DATABASE_URL = own.toString()
  for (const script of ['scripts/migrate.ts', 'scripts/seed.ts'])
    execFileSync(join(process.cwd(), 'node_modules/.bin/tsx'), [script], { env: { ...process.env, NODE_OPTIONS: '' } })
})
afterAll(async () => {
  await closeDatabase()
  await onServer(`DROP DATABASE IF EXISTS ${OWN}`)
})

test('there are many actions to call', () => expect(ACTIONS.length).toBeGreaterThan(50))

test.each(ACTIONS)('%s answers whatever it is called with', async (name, action) => {
  const rng = createRng([...name].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 1_000_003, 7))
  for (let i = 0; i < PER_ACTION; i++) {
    // Half of them begin with what exists, so that they come past the first check, and end anywhere.
    const known = i % 2 === 0 ? [pick(rng, KNOWN), pick(rng, KNOWN)] : []
    const more = Array.from({ length: Math.floor(rng.uniform() * MAX_ARGUMENTS) }, () => value(rng))
    const args = [...known.slice(0, Math.floor(rng.uniform() * 3)), ...more]
    const thrown = await action(...args).then(
      () => null,
      (error: Error) => ({ args, error: String(error.stack).slice(0, 600) }),
    )
    expect(thrown).toBeNull()
  }
})

const send = (path: string, body: unknown) =>
  new Request(`http://127.0.0.1/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', host: '127.0.0.1' },
    body: JSON.stringify(body) ?? '',
  })

test('an entry of an outbox is kept or refused, whatever it says', async () => {
  const rng = createRng(11)
  const ops = ['appendEvidence', 'withdrawEvidence', 'finishSetup', 'addNote', 'changeNote', 'withdrawNote', 'addLook']
  const statuses = new Set<number>()
  for (let i = 0; i < 400; i++) {
    const more = [
      'setupId',
      'row',
      'rowId',
      'marks',
      'purpose',
      'classId',
      'memberId',
      'bikeId',
      'noteId',
      'change',
      'sign',
    ]
    const entry = Object.fromEntries(more.map((field) => [field, jsonable(value(rng))]))
    const op = pick(rng, [...ops, 'addRoomCue', 'constructor', null])
    const body = {
      ...entry,
      op,
      id: crypto.randomUUID(),
      author: 'ines-harrow',
      madeAtMs: pick(rng, [0, Date.now(), null]),
    }
    statuses.add((await postOutbox(send('api/outbox', body))).status)
  }
  expect([...statuses].filter((status) => status >= 500)).toEqual([])
  expect(statuses.has(422)).toBe(true)
})

test('an operation answers 200 or says what is wrong, whatever it is asked', async () => {
  const rng = createRng(13)
  const good = { bikeType: HOLES_BIKE, evidence: [{ kind: 'stature', mm: 1700 }], samples: 300 }
  const found = new Map<number, number>()
  for (let i = 0; i < 600; i++) {
    const name = pick(rng, [
      'recommend',
      'place',
      'pose',
      'plan',
      'explain',
      'translate',
      'calibrate',
      'learn',
      'nothing',
    ])
    const kind = rng.uniform()
    const body: unknown = kind < 0.1 ? good : kind < 0.55 ? mutated(rng, good) : jsonable(value(rng))
    const answer = await operation(send(`api/v1/${name}`, body), { params: Promise.resolve({ operation: name }) })
    found.set(answer.status, (found.get(answer.status) ?? 0) + 1)
  }
  expect([...found.keys()].filter((status) => status >= 500 && status !== 503)).toEqual([])
  expect(found.get(200)).toBeGreaterThan(0)
  expect(found.get(400)).toBeGreaterThan(100)
})

const jsonable = (of: unknown): unknown => (typeof of === 'bigint' || of instanceof Map ? null : deep(of))
const deep = (of: unknown): unknown =>
  Array.isArray(of)
    ? of.map(jsonable)
    : of && typeof of === 'object'
      ? Object.fromEntries(Object.entries(of).map(([key, one]) => [key, jsonable(one)]))
      : of

/** A request with one thing in it, however deep, replaced. */
function mutated(rng: Rng, of: object): unknown {
  const entries = Object.entries(of)
  const [key, inner] = pick(rng, entries)
  const isDeeper = inner !== null && typeof inner === 'object' && Object.keys(inner as object).length > 0
  const instead = isDeeper && rng.uniform() < 0.7 ? mutated(rng, inner as object) : jsonable(value(rng))
  return Array.isArray(of)
    ? of.map((one: unknown, i) => (String(i) === key ? instead : one))
    : { ...of, [key]: instead }
}
