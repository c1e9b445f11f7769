/** @jest-environment node */
import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { createPool } from 'mysql2/promise'
import { POST as operation } from '@/app/api/v1/[operation]/route'
import { POST as postOutbox } from '@/app/api/outbox/route'
import { createRng, type Rng } from '@/core/base/rng'
import { formatRefusal, type Refusal } from '@/core/messages/refusals'
import { COMMANDS, INPUT_SCHEMAS, OWN_COMMANDS, QUERIES, validatorName } from '@/server/commands/registry'
import { runCommand, runOwnCommand, runQuery } from '@/server/commands/runCommand'
import { openLink, ownerOf, type LinkOwner } from '@/server/riders/memberPage/links'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { HOLES_BIKE } from '@/core/testing/meanRider'

/**
 * Whatever is sent to whatever can be called, an answer comes back: a throw would be a page that breaks, or a status of
 * 500. Seeded, and mixed of junk and of what exists, so that it comes past the first check.
 */
jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))
jest.mock('@/server/classes/calendar/readInThread', () => jest.requireActual('../support/calendarHere'))
jest.mock('@/server/platform/accounts/session', () => {
  const currentUser = async () => ({
    userId: 'ines-harrow',
    name: 'Ines Harrow',
    studioId: 'netloft-hall',
    role: 'manager',
  })
  return { currentUser, authorize: currentUser, requirePermission: currentUser, requireUser: currentUser }
})
const NAMES = [COMMANDS, QUERIES, OWN_COMMANDS].flatMap((all) => Object.keys(all))
const PER_COMMAND = 60

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
  process.env.BETTER_AUTH_SECRET ??= 'only-for-this-test-and-thrown-away-after'
  const link = await openLink(database(), scope, 'member-01', new Date())
  owner = (await ownerOf(database(), link!.token, new Date()))!
})
afterAll(async () => {
  await closeDatabase()
  await onServer(`DROP DATABASE IF EXISTS ${OWN}`)
})

type Schema = Readonly<{
  type?: string | readonly string[]
  anyOf?: readonly Schema[]
  enum?: readonly unknown[]
  pattern?: string
  properties?: Readonly<Record<string, Schema>>
  items?: Schema
}>

/** A value that mostly fits a schema, and in places is anything. */
function fitting(rng: Rng, schema: Schema): unknown {
  if (rng.uniform() < 0.06) return value(rng)
  if (schema.anyOf) return fitting(rng, pick(rng, schema.anyOf))
  if (Array.isArray(schema.type)) return fitting(rng, { ...schema, type: pick(rng, schema.type as string[]) })
  if (schema.type === 'null') return null
  if (schema.enum) return pick(rng, schema.enum)
  if (schema.pattern) return rng.uniform() < 0.7 ? pick(rng, KNOWN) : crypto.randomUUID()
  switch (schema.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(schema.properties ?? {})
          .filter(() => rng.uniform() < 0.95)
          .map(([key, inner]) => [key, fitting(rng, inner)]),
      )
    case 'array':
      return Array.from({ length: Math.floor(rng.uniform() * 4) }, () => fitting(rng, schema.items ?? {}))
    case 'boolean':
      return rng.uniform() < 0.5
    case 'number':
    case 'integer':
      return pick(rng, [0, 1, 2, 7, 45, 900, 2.5])
    case 'string':
      return pick(rng, [...KNOWN, 'Ada', '301-303', '2026-12-01', '18:30', '', 'y'.repeat(3000)])
    default:
      return value(rng)
  }
}

let owner: LinkOwner
const scope = { userId: 'ines-harrow', studioId: 'netloft-hall', role: 'manager' } as const

test('there are many commands and queries to send', () => expect(NAMES.length).toBeGreaterThan(70))

test.each(NAMES)('%s is answered whatever is sent', async (name) => {
  const rng = createRng([...name].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 1_000_003, 7))
  const answers = new Set<string>()
  for (let i = 0; i < PER_COMMAND; i++) {
    const input = i % 4 === 0 ? value(rng) : fitting(rng, INPUT_SCHEMAS[validatorName(name)] as Schema)
    const sent = { name, input, id: i % 10 === 0 ? (value(rng) as string) : crypto.randomUUID() }
    const run = () =>
      name in COMMANDS
        ? runCommand(database(), scope, sent, new Date())
        : name in QUERIES
          ? runQuery(database(), scope, sent, new Date())
          : runOwnCommand(database(), owner, sent, new Date())
    const answer = await run().catch((error: Error) => ({ sent, error: String(error.stack).slice(0, 600) }))
    expect(answer).not.toHaveProperty('error')
    const { outcome, code } = answer as Readonly<{ outcome: string; code?: string }>
    answers.add('issues' in answer ? 'schema' : (code ?? outcome))
    if (outcome === 'refused') expect(formatRefusal(answer as Refusal)).not.toBe('')
  }
  // Some get past the schema.
  expect([...answers].filter((one) => one !== 'schema')).not.toEqual([])
})

const send = (path: string, body: unknown) =>
  new Request(`http://127.0.0.1/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', host: '127.0.0.1' },
    body: JSON.stringify(body) ?? '',
  })

test('an entry of an outbox is stored or refused, whatever its content', async () => {
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

test('an operation answers 200 or states what is wrong, for any request', async () => {
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
