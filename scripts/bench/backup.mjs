/**
 * `npm run bench:backup`: backup and restore of a large studio. Needs `npm run seed:large` first. Times a backup, pages
 * without and during backups (95th percentiles of one run), and a restore into a new place, which compares every row.
 * Writes `docs/bench/backup.md`.
 */
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { addressFile, backupStatus } from '../support/backup/backupStudio.mjs'
import { restoreStudio } from '../support/backup/restoreStudio.mjs'
import { writeWhole } from '../support/identity.mjs'
import { claim, healthKeys, secret, startMariaDb } from '../support/mariadb.mjs'
import { freePort, run } from '../support/processes.mjs'
import { bin, build, serve } from '../support/production.mjs'

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))))
const folder = join(root, '.data', 'large')
const dist = process.env.NEXT_DIST ?? '.next'
const PAGES = ['/members', '/class', '/riders/large-7', '/bikes']
const BACKUPS = 3

const percentile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))]

/** Requests pages one after the other until `isOver`; milliseconds of each. */
async function requestPages(get, isOver) {
  const times = []
  for (let i = 0; !isOver() || times.length < 40; i++) {
    const began = performance.now()
    await get(PAGES[i % PAGES.length])
    times.push(performance.now() - began)
  }
  return times
}

if (!existsSync(join(folder, 'mariadb', 'mysql'))) throw new Error('There is no large studio yet: npm run seed:large')
await build(root, dist)
await claim(folder)
const data = mkdtempSync(join(tmpdir(), 'ys-backup-'))
const settings = { data, database: 'embedded', backups: join(data, 'backups') }
const logs = join(data, 'binlog', 'run')
mkdirSync(logs, { recursive: true })
const database = await startMariaDb(folder, { logs })
writeWhole(addressFile(data), database.url)
const port = await freePort()
const base = `http://127.0.0.1:${port}`
const env = {
  DATABASE_URL: database.url,
  BETTER_AUTH_SECRET: secret(join(folder, 'session-secret')),
  HEALTH_KEY: healthKeys(folder),
  BETTER_AUTH_URL: base,
}
await run(bin(root, 'tsx'), ['scripts/migrate.ts'], { cwd: root, env, quiet: true })
const server = await serve(root, dist, port, env)
const found = { alone: [], during: [], seconds: [] }
try {
  const signedIn = await fetch(`${base}/api/auth/sign-in/username`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base },
    body: JSON.stringify({ username: 'ines', password: 'tarn-ferry-rows-east' }),
  })
  const cookie = signedIn.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ')
  const get = async (path) => {
    const response = await fetch(base + path, { headers: { cookie } })
    await response.text()
    if (!response.ok) throw new Error(`${path} answered ${response.status}`)
  }
  const began = performance.now()
  await requestPages(get, () => performance.now() - began > 10_000)
  for (let i = 0; i < BACKUPS; i++) {
    const from = performance.now()
    found.alone.push(...(await requestPages(get, () => performance.now() - from > 8_000)))
    let isOver = false
    const started = performance.now()
    const env = { SADDLE_DATA: data, SADDLE_BACKUPS: settings.backups }
    const backup = run(process.execPath, ['scripts/operate/backup.mjs'], { cwd: root, env, quiet: true })
      .then(() => (performance.now() - started) / 1000)
      .finally(() => (isOver = true))
    found.during.push(...(await requestPages(get, () => isOver)))
    found.seconds.push(await backup)
    console.log(`backup ${i + 1}: ${found.seconds.at(-1).toFixed(1)} s`)
  }
} finally {
  await server.stop()
  await database.stop()
}
const made = backupStatus(data)
const began = performance.now()
console.log(await restoreStudio(root, settings, {}))
const restoreS = (performance.now() - began) / 1000
rmSync(data, { recursive: true, force: true })

const [alone, during] = [found.alone, found.during].map((times) => percentile(times, 0.95))
writeFileSync(
  join(root, 'docs/bench/backup.md'),
  `# Backup and restore of a large studio

\`npm run bench:backup\` after \`npm run seed:large\` (20,000 members, 100,000 set-ups, ${made.rows} rows); one run
on two cores, server, database, backup and requests on the same machine. Wanted: a backup within two minutes, pages at
most 1.5 times as slow during it, a restore within five minutes.

| figure | value |
|---|---|
| backup, longest of ${BACKUPS} | ${Math.max(...found.seconds).toFixed(1)} s |
| its file, compressed and encrypted | ${(made.bytes / 1e6).toFixed(0)} MB |
| pages one after the other, 95th percentile, no backup | ${alone.toFixed(0)} ms of ${found.alone.length} |
| the same during backups | ${during.toFixed(0)} ms of ${found.during.length}, ${(during / alone).toFixed(2)} times |
| restore into a new place, every row compared | ${restoreS.toFixed(0)} s |
`,
)
console.log(`restore ${restoreS.toFixed(1)} s; p95 ${alone.toFixed(0)} → ${during.toFixed(0)} ms`)
