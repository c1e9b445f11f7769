/**
 * `npm run bench:studio`: how a large studio answers. Needs `npm run seed:large` first. Two parts, one table in docs:
 * the pages one by one (95th percentile at the route, size, nodes at first paint); and 200 ordinary requests at once,
 * without and with ten of the heaviest allowed `recommend` requests running.
 */
import { existsSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import { program } from '../support/installed.mjs'
import { claim, startMariaDb } from '../support/mariadb.mjs'
import { freePort, run } from '../support/processes.mjs'
import { bin, build, serve } from '../support/production.mjs'

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))))
const folder = join(root, '.data', 'large')
const dist = process.env.NEXT_DIST ?? '.next'
const PASSES = 60
const AT_ONCE = 200
const HEAVY = 10

if (!existsSync(join(folder, 'mariadb', 'mysql'))) throw new Error('There is no large studio yet: npm run seed:large')
await build(root, dist)
await claim(folder)
const database = await startMariaDb(folder)
const port = await freePort()
const base = `http://127.0.0.1:${port}`
const env = { DATABASE_URL: database.url, BETTER_AUTH_SECRET: 'only-for-the-bench-and-thrown-away', BETTER_AUTH_URL: base }
await run(bin(root, 'tsx'), ['scripts/migrate.ts'], { cwd: root, env, quiet: true })
const server = await serve(root, dist, port, env)

const percentile = (values, share) => [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))]
async function timed(work) {
  const began = performance.now()
  await work()
  return performance.now() - began
}

try {
  const signedIn = await fetch(`${base}/api/auth/sign-in/username`, { method: 'POST', headers: { 'content-type': 'application/json', origin: base }, body: JSON.stringify({ username: 'ines', password: 'tarn-ferry-rows-east' }) })
  const cookie = signedIn.headers.getSetCookie().map((c) => c.split(';')[0]).join('; ')
  const get = async (path) => {
    const response = await fetch(base + path, { headers: { cookie } })
    if (!response.ok) throw new Error(`${path} answered ${response.status}`)
    return response.text()
  }
  const post = async (path, body) => {
    const response = await fetch(base + path, { method: 'POST', headers: { cookie, 'content-type': 'application/json' }, body: JSON.stringify(body) })
    await response.text()
    return response.status
  }

  const pages = ['/members', '/members?find=marram', '/members?without=1', '/members?page=200', '/class', '/riders/large-7']
  const browser = await chromium.launch({ executablePath: program('chromium'), chromiumSandbox: process.getuid?.() !== 0, args: ['--disable-background-networking', '--no-first-run'] })
  const context = await browser.newContext()
  await context.addCookies(cookie.split('; ').map((c) => ({ name: c.split('=')[0], value: c.split('=').slice(1).join('='), url: base })))
  const page = await context.newPage()
  const lines = ['| page | median, ms | 95th percentile, ms | HTML, kB | nodes |', '|---|---|---|---|---|']
  for (const path of pages) {
    for (let i = 0; i < 5; i++) await get(path)
    const times = []
    let html = ''
    for (let i = 0; i < PASSES; i++) times.push(await timed(async () => (html = await get(path))))
    await page.goto(base + path)
    const nodes = await page.evaluate(() => document.querySelectorAll('*').length)
    lines.push(`| \`${path}\` | ${percentile(times, 0.5).toFixed(0)} | ${percentile(times, 0.95).toFixed(0)} | ${(html.length / 1000).toFixed(0)} | ${nodes} |`)
    console.log(lines.at(-1))
  }
  await browser.close()

  const bikeType = JSON.parse(await (await import('node:fs/promises')).readFile(join(root, 'docs/examples/recommend.json'), 'utf8')).bikeType
  const at = { seatHeight: '8', seatSlide: 'D' }
  // Every row at another place or by another way: repeats in one place would be drawn together into one.
  const kinds = [{ kind: 'kneeAngle', deg: 30, by: 'goniometer' }, { kind: 'plumb', mm: 4, from: 'front' }, { kind: 'kneeByEye', seen: 'slightBend' }, { kind: 'heelCheck', seen: 'stillBent' }, { kind: 'kneeAngle', deg: 31, by: 'photo' }]
  const places = Array.from({ length: 15 }, (_, h) => [...'ABCDEFG'].map((seatSlide) => ({ seatHeight: String(h + 1), seatSlide }))).flat()
  const heavy = { bikeType, samples: 4000, evidence: Array.from({ length: 500 }, (_, i) => ({ ...kinds[i % 5], at: places[Math.floor(i / 5)] })) }
  const ordinary = [
    () => get('/members'), () => get('/riders/large-7'), () => get('/class'), () => get('/api/set-ups/large-setup-7/rows'), () => get('/api/set-ups/large-setup-8/rows'),
    () => post('/api/v1/place', { bikeType, marks: at }), () => get('/api/set-ups/large-setup-9/rows'), () => get('/members?find=kestrand'),
  ]
  const round = () => Promise.all(Array.from({ length: AT_ONCE }, (_, i) => timed(ordinary[i % ordinary.length])))
  await round()
  const rounds = async () => [...(await round()), ...(await round()), ...(await round())]
  const without = await rounds()
  const heavies = Array.from({ length: HEAVY }, () => {
    const began = performance.now()
    return post('/api/v1/recommend', heavy).then((status) => ({ status, ms: performance.now() - began }))
  })
  const beside = await rounds()
  const ended = await Promise.all(heavies)
  const [a, b] = [percentile(without, 0.95), percentile(beside, 0.95)]
  const one = await timed(() => post('/api/v1/recommend', heavy))
  const statuses = [...new Set(ended.map((e) => e.status))].map((status) => `${ended.filter((e) => e.status === status).length} × ${status}`).join(', ')
  const load = [
    `${AT_ONCE} ordinary requests at once, three rounds: 95th percentile ${a.toFixed(0)} ms; with ${HEAVY} of the heaviest running ${b.toFixed(0)} ms, ${(b / a).toFixed(2)} times as long.`,
    `The heaviest allowed request (500 rows, 4,000 samples) by itself: ${(one / 1000).toFixed(1)} s; the ten ended ${statuses}.`,
  ]
  load.forEach((line) => console.log(line))
  const text = [
    '# A large studio', '', 'Made by `npm run bench:studio` after `npm run seed:large` (20,000 members, 100,000 set-ups); one run on two cores, server, database and', 'whoever asks on the same machine.', '',
    '## Pages, one request after the other', '', ...lines, '', '## Two hundred at once', '', ...load, '',
  ]
  writeFileSync(join(root, 'docs', 'bench-studio.md'), text.join('\n'))
} finally {
  await server.stop()
  await database.stop()
}
process.exit(0)
