/**
 * `npm run trial:restore -- 30 1` (cycles, seed): an embedded database under load, killed without warning at a random
 * moment, and restored as it was at another one. Every other cycle loses the whole data folder but for backups and key.
 * Counts rows that were acknowledged before the moment and are missing, and rows of later that came along. Writes
 * `docs/trials/restore.md`.
 */
import { cpSync, mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { setTimeout as wait } from 'node:timers/promises'
import { createConnection } from 'mysql2/promise'
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { addressFile, backupStatus, backupStudio, closeAndCopyLogs } from '../support/backup/backupStudio.mjs'
import { restoreStudio } from '../support/backup/restoreStudio.mjs'
import { writeWhole } from '../support/identity.mjs'
import { ensureDebian, MARIADB, MARIADB_CLIENT } from '../support/installed.mjs'
import { startMariaDb } from '../support/mariadb.mjs'

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))))
const [cycles, seed] = [Number(process.argv[2] ?? 30), Number(process.argv[3] ?? 1)]
const generator = xoroshiro128plus(seed)
const uniform = () => uniformFloat64(generator)

/** Inserts rows one after the other until the database is gone; notes when each was acknowledged. */
async function load(url, acknowledged) {
  const connection = await createConnection({ uri: url })
  connection.on('error', () => undefined)
  await connection.query('CREATE TABLE IF NOT EXISTS trial (n int PRIMARY KEY, text varchar(100) NOT NULL)')
  for (let n = 1; ; n++) {
    try {
      await connection.query('INSERT INTO trial VALUES (?, ?)', [n, `row ${n}`.padEnd(90, '.')])
      acknowledged.push({ n, atMs: Date.now() })
      await wait(2)
    } catch {
      connection.destroy()
      return
    }
  }
}

async function cycle(i) {
  const data = mkdtempSync(join(tmpdir(), 'ys-restore-'))
  const settings = { data, database: 'embedded', backups: join(data, 'backups') }
  const logs = join(data, 'binlog', 'run')
  mkdirSync(logs, { recursive: true })
  const database = await startMariaDb(data, { logs })
  writeWhole(addressFile(data), database.url)
  const acknowledged = []
  const loaded = load(database.url, acknowledged)
  await wait(300 + 700 * uniform())
  await backupStudio(root, settings)
  await wait(1500 + 2000 * uniform())
  const isLost = i % 2 === 1
  // A lost machine has what was copied; what was entered after that is not promised.
  if (isLost) await closeAndCopyLogs(settings)
  const copiedAtMs = Date.now()
  await wait(200 + 1500 * uniform())
  database.kill()
  await Promise.all([database.exited, loaded])
  const { lastSuccess } = backupStatus(data)
  const from = Date.parse(lastSuccess) + 1000
  const until = isLost ? copiedAtMs - 1000 : Date.now()
  const at = new Date(from + (until - from) * uniform())
  if (isLost) {
    const saved = `${data}-saved`
    mkdirSync(saved)
    cpSync(join(data, 'backups'), join(saved, 'backups'), { recursive: true })
    cpSync(join(data, 'backup-key.txt'), join(saved, 'backup-key.txt'))
    rmSync(data, { recursive: true, force: true })
    renameSync(saved, data)
  }
  const began = performance.now()
  await restoreStudio(root, settings, { at })
  const seconds = (performance.now() - began) / 1000
  const restored = await startMariaDb(data)
  const connection = await createConnection({ uri: restored.url })
  const [rows] = await connection.query('SELECT n FROM trial')
  await connection.end()
  await restored.stop()
  rmSync(data, { recursive: true, force: true })
  const there = new Set(rows.map(({ n }) => n))
  const before = acknowledged.filter(({ atMs }) => atMs <= at.getTime())
  // A row is of the second its commit began in; one more second is the log's measure.
  const after = acknowledged.filter(({ atMs }) => atMs > at.getTime() + 1100)
  return {
    isLost,
    acknowledged: acknowledged.length,
    before: before.length,
    missing: before.filter(({ n }) => !there.has(n)).length,
    tooMany: after.filter(({ n }) => there.has(n)).length,
    seconds: Number(seconds.toFixed(1)),
  }
}

await ensureDebian([MARIADB, MARIADB_CLIENT])
const results = []
for (let i = 0; i < cycles; i++) {
  results.push(await cycle(i))
  console.log(`${i + 1}/${cycles}: ${JSON.stringify(results.at(-1))}`)
}
const sum = (of) => results.reduce((so, one) => so + of(one), 0)
const total = {
  cycles,
  seed,
  rows: sum(({ acknowledged }) => acknowledged),
  before: sum(({ before }) => before),
  missing: sum(({ missing }) => missing),
  tooMany: sum(({ tooMany }) => tooMany),
  longestRestoreS: Math.max(...results.map(({ seconds }) => seconds)),
}
console.log(total)
const lines = results.map(
  (one, i) =>
    `| ${i + 1} | ${one.isLost ? 'folder lost' : 'killed'} | ${one.acknowledged} | ${one.before} | ${one.missing} | ` +
    `${one.tooMany} | ${one.seconds} |`,
)
writeFileSync(
  join(root, 'docs/trials/restore.md'),
  `# What a restore brings back

\`npm run trial:restore -- ${cycles} ${seed}\`: an embedded database under load, killed −9 at a random moment, in every
other cycle with its folder lost but for backups and key, then restored as it was at another random moment.

Of ${total.before} rows acknowledged before the moments, **${total.missing} are missing**; of the rows of
more than a second after, ${total.tooMany} came along. The longest restore took ${total.longestRestoreS} s.

| cycle | what happened | rows acknowledged | before the moment | missing | too many | restore, s |
|---|---|---|---|---|---|---|
${lines.join('\n')}
`,
)
process.exit(total.missing + total.tooMany > 0 ? 1 : 0)
