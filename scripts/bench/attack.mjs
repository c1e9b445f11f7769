/**
 * `npm run bench:attack -- --seed 7`: bounded attacks on a running studio, on loopback, in a temporary data folder.
 * `--only calendars,requests,import,link` selects parts.
 *
 * 1. Calendars: previews seeded calendars one after another and probes the health URL in parallel.
 * 2. Requests: sends mutated requests to every operation and command; reports answers, time and server memory.
 * 3. Import: imports a long list while devices write notes.
 * 4. Link: writes through one private link, then measures size and time of its pages.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { parseArgs } from 'node:util'
import { createConnection } from 'mysql2/promise'
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { build } from '../support/production.mjs'
import { hallIn, root } from '../trials/hall.mjs'

const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '7' },
    calendars: { type: 'string', default: '2000' },
    requests: { type: 'string', default: '5000' },
    lines: { type: 'string', default: '50000' },
    devices: { type: 'string', default: '40' },
    writes: { type: 'string', default: '10000' },
    only: { type: 'string', default: 'calendars,requests,import,link' },
  },
})
const count = (name) => Number(values[name])
const generator = xoroshiro128plus(count('seed'))
for (let i = 0; i < 64; i++) uniformFloat64(generator)
const chance = () => uniformFloat64(generator)
const pick = (from) => from[Math.floor(chance() * from.length)]
const dist = process.env.NEXT_DIST ?? '.next'
const folder = mkdtempSync(join(tmpdir(), 'ys-attack-'))
const hall = await hallIn(folder)
const CLASS = 'class-dusk'

const quantile = (all, q) => [...all].sort((a, b) => a - b)[Math.min(all.length - 1, Math.floor(q * all.length))]
const ms = (n) => `${n.toFixed(0)} ms`
const summary = (all) =>
  `median ${ms(quantile(all, 0.5))}, p95 ${ms(quantile(all, 0.95))}, most ${ms(Math.max(...all))}`
const timed = async (work) => {
  const began = performance.now()
  const result = await work()
  return { result, took: performance.now() - began }
}

/** The three doors of the interface, by name: their ids and a page that serves each, from the build manifest. */
function doors() {
  const { node } = JSON.parse(readFileSync(join(root, dist, 'server', 'server-reference-manifest.json'), 'utf8'))
  return Object.fromEntries(Object.entries(node).map(([id, { exportedName }]) => [exportedName, id]))
}

/** Calls one of the doors `send`, `sendQuery` and `sendOwn` as a page does. `body`: its arguments as JSON. */
async function call(door, path, cookie, body) {
  const response = await fetch(`${hall.base}${path}`, {
    method: 'POST',
    headers: { cookie, origin: hall.base, 'next-action': doors()[door], 'content-type': 'text/plain;charset=UTF-8' },
    body,
    redirect: 'manual',
  })
  const text = await response.text()
  return { status: response.status, text }
}

/** Probes the health URL until stopped; returns the response times. */
function pollHealth() {
  const times = []
  let going = true
  const done = (async () => {
    while (going) {
      times.push((await timed(async () => (await fetch(`${hall.base}/api/health`)).arrayBuffer())).took)
      await wait(40)
    }
  })()
  return async () => {
    going = false
    await done
    return times
  }
}

const serverPid = () => Number(readFileSync(join(folder, 'server.pid'), 'utf8').split(' ')[0])
const memoryMb = () => Number(readFileSync(`/proc/${serverPid()}/status`, 'utf8').match(/VmRSS:\s+(\d+)/)[1]) / 1000

const NUMBERS = ['0', '1', '-1', '2', '13', '30', '31', '53', '366', '1000000', 'x', '']
function calendar(i) {
  const freq = pick(['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY', 'HOURLY', 'MINUTELY', 'SECONDLY', 'NEVER'])
  const parts = ['INTERVAL', 'COUNT', 'BYMONTH', 'BYMONTHDAY', 'BYYEARDAY', 'BYWEEKNO', 'BYSETPOS', 'BYHOUR']
    .filter(() => chance() < 0.2)
    .map((part) => `${part}=${pick(NUMBERS)}`)
  const rule = [`FREQ=${freq}`, ...parts, ...(chance() < 0.3 ? [`BYDAY=${pick(['MO', '5SU', '53MO', 'XX'])}`] : [])]
  const start = pick(['20000101T060000Z', '20261001T180000', '19000229T000000Z', '99991231T235959Z', '2026'])
  const event = (more) => ['BEGIN:VEVENT', `UID:${i}-${more}`, `SUMMARY:Fuzz ${i}`, `DTSTART:${start}`, 'DURATION:PT1H']
  const events = Array.from({ length: i % 50 === 0 ? 300 : 1 }, (_, more) => [
    ...event(more),
    `RRULE:${i % 25 === 0 ? 'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30' : rule.join(';')}`,
    'END:VEVENT',
  ])
  const text = ['BEGIN:VCALENDAR', 'VERSION:2.0', ...events.flat(), 'END:VCALENDAR', ''].join('\r\n')
  return i % 5 === 1 ? text.slice(0, Math.floor(chance() * text.length)) : text
}

async function calendars(cookie) {
  const stop = pollHealth()
  const times = []
  const odd = new Map()
  for (let i = 0; i < count('calendars'); i++) {
    const { result, took } = await timed(() =>
      call('sendQuery', '/class', cookie, JSON.stringify(['classes.readTimetable', { text: calendar(i) }])),
    )
    times.push(took)
    if (result.status !== 200 || !result.text.includes('"outcome":"found"'))
      odd.set(result.status, (odd.get(result.status) ?? 0) + 1)
  }
  const health = await stop()
  console.log(
    `| calendars | ${times.length} looked at: ${summary(times)}; other answers than 200: ` +
      `${JSON.stringify([...odd])}; health meanwhile ${summary(health)} |`,
  )
}

const JUNK = [null, true, 0, -1, 2.5, 1e300, '', 'x', '\u0000', '2026-02-30', 'y'.repeat(3000), [], [null], [[[]]], {}]
const VALID = ['member-01', 'bike-1', 'bike-9', CLASS, 'sorrel', 'setup-member-01', 'here', 'metric', 'keep', 'usual']
const FIELDS = ['id', 'name', 'plan', 'places', 'title', 'day', 'time', 'marks', 'evidence', 'kind', 'at', 'what', 'mm']
function junk(depth = 0) {
  const choice = chance()
  if (choice < 0.35) return pick(VALID)
  if (choice < 0.45) return crypto.randomUUID()
  if (choice < 0.8 || depth > 2) return pick(JUNK)
  if (choice < 0.88) return [junk(depth + 1), junk(depth + 1), junk(depth + 1)]
  return Object.fromEntries(FIELDS.filter(() => chance() < 0.4).map((field) => [field, junk(depth + 1)]))
}
const { paths, components } = JSON.parse(readFileSync(join(root, 'docs', 'schemas', 'openapi.json'), 'utf8'))
/** What may be sent, by the published document: an operation with its schema, or a command with that of its input. */
const REQUESTS = Object.entries(paths).map(([path, { post }]) => {
  const { schema } = post.requestBody.content['application/json']
  const name = path.split('/').at(-1)
  return path.includes('/commands/') ? { name, schema: schema.properties.input } : { name, path, schema }
})
/** Queries of pages, which the document leaves out. */
const QUERIES = ['bikes.compareTapeReading', 'classes.classForEdit', 'classes.readPlan', 'classes.readTimetable']
QUERIES.push('members.findMembers', 'members.previewMerge', 'places.previewPlaces', 'register.earlierEntries')

/** A value of the schema's shape with something wrong here and there. */
function mutated(schema, depth = 0) {
  if (!schema || chance() < 0.08 || depth > 6) return junk()
  if (schema.$ref) return mutated(components.schemas[schema.$ref.split('/').at(-1)], depth + 1)
  if (schema.const !== undefined) return schema.const
  if (schema.enum) return pick(schema.enum)
  const choices = schema.anyOf ?? schema.oneOf
  if (choices) return mutated(pick(choices), depth + 1)
  if (schema.type === 'object')
    return Object.fromEntries(
      Object.entries(schema.properties ?? {})
        .filter(([name]) => chance() < (schema.required?.includes(name) ? 0.95 : 0.4))
        .map(([name, of]) => [name, mutated(of, depth + 1)]),
    )
  if (schema.type === 'array')
    return Array.from({ length: Math.floor(chance() * 4) }, () => mutated(schema.items, depth + 1))
  if (schema.type === 'boolean') return chance() < 0.5
  if (schema.type === 'integer' || schema.type === 'number') return Math.round((chance() - 0.2) * 1000)
  return schema.type === 'string' ? pick(VALID) : junk(depth)
}

async function requests(cookie) {
  // Warm-up: first requests compile and cache.
  for (let i = 0; i < 300; i++) await one(cookie)
  await wait(15_000)
  const before = memoryMb()
  const times = []
  const statuses = new Map()
  for (let i = 0; i < count('requests'); i++) {
    const { result, took } = await timed(() => one(cookie))
    times.push(took)
    statuses.set(result, (statuses.get(result) ?? 0) + 1)
  }
  await wait(60_000)
  const after = memoryMb()
  console.log(
    `| requests | ${times.length} mutated: ${summary(times)}; by answer ${JSON.stringify([...statuses].sort())}; ` +
      `memory ${before.toFixed(0)} MB before, ${after.toFixed(0)} MB a minute after: ` +
      `${((100 * after) / before - 100).toFixed(0)} % more |`,
  )
}

/** Sends one request; its status, behind it the outcome of a command or query. */
async function one(cookie) {
  const { name, path, schema } = pick(REQUESTS)
  if (path) {
    const response = await fetch(`${hall.base}${path}`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json', origin: hall.base },
      body: chance() < 0.1 ? '{"' : JSON.stringify(mutated(schema)),
    })
    await response.arrayBuffer()
    return String(response.status)
  }
  const args =
    chance() < 0.15 ? ['sendQuery', pick(QUERIES), junk()] : ['send', name, mutated(schema), crypto.randomUUID()]
  const [door, ...sent] = chance() < 0.05 ? [args[0], ...Array.from({ length: 3 }, () => junk())] : args
  const body = chance() < 0.05 ? '[' : JSON.stringify(sent)
  const { status, text } = await call(door, '/today', cookie, body)
  if (status >= 500) console.log(`${status} of ${name}: ${body.slice(0, 300)} ${text.slice(-200)}`)
  return `${status} ${text.match(/"outcome":"(\w+)"/)?.[1] ?? ''}`.trim()
}

async function list(cookie) {
  const lines = ['name,bike type,purpose,seat height,seat slide,bar height,bar slide']
  for (let i = 0; i < count('lines'); i++)
    lines.push(`Imported ${i} Marsh${i % 997},Sorrel,usual,${1 + (i % 15)},C,5,2`)
  const sentFile = await fetch(`${hall.base}/api/files`, {
    method: 'POST',
    headers: { cookie, origin: hall.base },
    body: lines.join('\r\n'),
  })
  const { id, preview } = await sentFile.json()
  let going = true
  const times = []
  let [taken, refused] = [0, 0]
  const device = async (n) => {
    await wait((3000 * n) / count('devices'))
    while (going) {
      const began = Date.now()
      const who = { memberId: `member-0${1 + (n % 9)}`, bikeId: `bike-${1 + (n % 12)}`, classId: CLASS }
      const entry = { ...who, op: 'addNote', sign: 'kneesOut', side: 'left', author: 'ines-harrow' }
      const { result, took } = await timed(async () => {
        const response = await fetch(`${hall.base}/api/outbox`, {
          method: 'POST',
          headers: { cookie, 'content-type': 'application/json', origin: hall.base },
          body: JSON.stringify({ ...entry, id: crypto.randomUUID(), madeAtMs: Date.now(), sentAtMs: Date.now() }),
        })
        await response.arrayBuffer()
        return response.status
      })
      times.push(took)
      if (result === 200) taken += 1
      else refused += 1
      await wait(Math.max(0, 3000 - (Date.now() - began)))
    }
  }
  const devices = Array.from({ length: count('devices') }, (_, n) => device(n))
  await wait(10_000)
  const calm = times.splice(0)
  const { result, took } = await timed(async () => {
    const response = await fetch(`${hall.base}/api/files/${id}`, {
      method: 'POST',
      headers: { cookie, origin: hall.base, 'content-type': 'application/json' },
      body: JSON.stringify({ what: 'import', columns: preview.columns }),
    })
    return (await response.text()).trim().split('\n').at(-1)
  })
  const during = times.splice(0)
  going = false
  await Promise.all(devices)
  const connection = await database()
  const [[{ stored }]] = await connection.query(
    `SELECT COUNT(*) AS stored FROM class_note WHERE class_id = '${CLASS}' AND sign = 'kneesOut'`,
  )
  await connection.end()
  console.log(
    `| import | ${count('lines')} lines in ${(took / 1000).toFixed(1)} s: ${result.slice(0, 160)}; notes of ` +
      `${count('devices')} devices before ${summary(calm)}; meanwhile (${during.length}) ${summary(during)}; ` +
      `${taken} taken, ${refused} refused, ${stored} stored |`,
  )
}

const database = () =>
  createConnection({ uri: readFileSync(`/proc/${serverPid()}/environ`, 'utf8').match(/DATABASE_URL=([^\0]+)/)[1] })

const SENDERS = 64

async function link(cookie) {
  const memberId = 'member-05'
  const opened = ['register.openOwnPage', { memberId }, crypto.randomUUID()]
  await call('send', `/riders/${memberId}`, cookie, JSON.stringify(opened))
  const rider = await (await fetch(`${hall.base}/riders/${memberId}`, { headers: { cookie } })).text()
  const token = rider.match(/\/m\/([\w-]{43})/)[1]
  const connection = await database()
  const [[running]] = await connection.query('SELECT id FROM trial WHERE member_id = ? AND ended_at IS NULL', [
    memberId,
  ])
  const felt = () => ({ felt: { comfort: 5, place: 'knees', line: 'z'.repeat(200) } })
  const complaint = () => ({ said: { what: 'hands', side: 'both', strength: 5 } })
  const ways = [
    () => ['ownPage.sendFelt', felt()],
    () => ['ownPage.requestRecheck', { line: 'z'.repeat(200) }],
    () => ['ownPage.sendComplaint', complaint()],
    ...(running ? [() => ['ownPage.rateOwnTrial', { trialId: running.id, rating: Math.floor(chance() * 11) }]] : []),
  ]
  const statuses = new Map()
  // Many senders: the server delays each request.
  await Promise.all(
    Array.from({ length: SENDERS }, async () => {
      for (let i = 0; i < count('writes') / SENDERS; i++) {
        const body = JSON.stringify([token, ...pick(ways)(), crypto.randomUUID()])
        const { status, text } = await call('sendOwn', `/m/${token}`, '', body)
        const answer = `${status} ${text.match(/"outcome":"(\w+)"/)?.[1]} ${text.match(/"code":"(\w+)"/)?.[1] ?? ''}`
        statuses.set(answer, (statuses.get(answer) ?? 0) + 1)
      }
    }),
  )
  const [[{ stored }]] = await connection.query('SELECT COUNT(*) AS stored FROM member_message WHERE member_id = ?', [
    memberId,
  ])
  await connection.end()
  const pages = []
  for (const path of [`/m/${token}`, `/m/${token}/story`, `/m/${token}/story?page=1`]) {
    const times = []
    let bytes = 0
    for (let i = 0; i < 9; i++) {
      const { result, took } = await timed(async () => (await fetch(`${hall.base}${path}`)).arrayBuffer())
      times.push(took)
      bytes = Math.max(bytes, result.byteLength)
    }
    pages.push(`${path.replace(token, '…')} ${(bytes / 1000).toFixed(0)} kB, ${summary(times)}`)
  }
  console.log(
    `| link | ${count('writes')} writes, by answer ${JSON.stringify([...statuses])}, ${stored} messages stored; ` +
      `${pages.join('; ')} |`,
  )
}

try {
  await build(root, dist)
  hall.start()
  await hall.open()
  const cookie = await hall.signIn()
  const chosen = values.only.split(',')
  for (const [name, part] of Object.entries({ calendars, requests, import: list, link }))
    if (chosen.includes(name)) await part(cookie)
} catch (error) {
  console.error(error, hall.said().slice(-2000))
  process.exitCode = 1
} finally {
  await hall.stopped('SIGTERM')
  rmSync(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 300 })
}
