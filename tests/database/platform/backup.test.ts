/** @jest-environment node */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createConnection, type Connection } from 'mysql2/promise'

const SCRIPTS = join(__dirname, '../../../scripts/support/backup')
const folder = mkdtempSync(join(tmpdir(), 'ys-backup-'))
const from = process.env.DATABASE_URL!
const into = Object.assign(new URL(from), { pathname: '/saddle_restored' }).href

/** Runs module code in a plain Node; resolves with what it printed last, as JSON. */
function runModule<T>(code: string): T {
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', code], {
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '', FROM: from, INTO: into, FOLDER: folder },
  })
  if (!stdout) throw new Error(stderr)
  return JSON.parse(stdout.trimEnd().split('\n').at(-1)!) as T
}
const IMPORTS =
  `import { backupKey } from '${SCRIPTS}/backupKey.mjs';` +
  `import { makeBackup } from '${SCRIPTS}/makeBackup.mjs';` +
  `import { verifyBackup, restoreBackup, differences } from '${SCRIPTS}/readBackup.mjs';` +
  `const { FROM, INTO, FOLDER } = process.env;` +
  `const key = await backupKey(FOLDER + '/key.txt');`

async function emptyDatabase(): Promise<void> {
  const connection = await createConnection({ uri: from })
  await connection.query('DROP DATABASE IF EXISTS saddle_restored')
  await connection.query('CREATE DATABASE saddle_restored CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci')
  await connection.end()
}

type Backup = Readonly<{ file: string; rows: number }>
let backup: Backup
let copy: Connection | undefined
beforeAll(() => {
  backup = runModule(
    `${IMPORTS} console.log(JSON.stringify(await makeBackup({ url: FROM, folder: FOLDER, recipient: key.recipient, ` +
      `now: new Date('2004-05-06T07:08:09Z'), about: { program: '0.0.0' } })))`,
  )
})
afterAll(async () => {
  await copy?.end()
  rmSync(folder, { recursive: true, force: true })
  const connection = await createConnection({ uri: from })
  await connection.query('DROP DATABASE IF EXISTS saddle_restored')
  await connection.end()
})

/** What verifying a file says; null where it is whole. */
const faultOf = (file: string, keyFile = 'key.txt'): string | null =>
  runModule(
    `${IMPORTS} const { identity } = await backupKey(FOLDER + '/${keyFile}');` +
      `const said = await verifyBackup(${JSON.stringify(file)}, identity).then(() => null, (e) => e.message);` +
      `console.log(JSON.stringify(said))`,
  )

test('a backup restored into an empty database is equal to what it was made of, row by row', async () => {
  expect(backup.file).toBe(join(folder, 'saddle-20040506T070809Z.sql.gz.age'))
  expect(backup.rows).toBeGreaterThan(200)
  await emptyDatabase()
  const restored = runModule<{ head: object; rows: Record<string, number>; faults: string[] }>(
    `${IMPORTS} const read = await restoreBackup(${JSON.stringify(backup.file)}, key.identity, INTO);` +
      `console.log(JSON.stringify({ ...read, faults: await differences(INTO, read) }))`,
  )
  expect(restored.head).toEqual({ version: 1, madeAt: '2004-05-06T07:08:09.000Z', program: '0.0.0' })
  expect(restored.faults).toEqual([])
  copy = await createConnection({ uri: into })
  for (const table of ['member', 'register_entry', 'class_note']) {
    const [[{ n }]] = (await copy.query(`SELECT COUNT(*) AS n FROM \`${table}\``)) as unknown as [[{ n: number }]]
    expect([table, restored.rows[table]]).toEqual([table, n])
  }
  // A row changed, and one gone, are found.
  await copy.query('UPDATE member SET name = "Someone Else" LIMIT 1')
  const differs = `${IMPORTS} const read = await verifyBackup(${JSON.stringify(backup.file)}, key.identity);`
  const found = () => runModule<string[]>(`${differs} console.log(JSON.stringify(await differences(INTO, read)))`)
  expect(found()).toEqual(['The rows are as many, but not the same.'])
  // A complaint of another test may refer to the note.
  await copy.query('SET foreign_key_checks = 0')
  await copy.query('DELETE FROM class_note LIMIT 1')
  expect(found()[0]).toMatch(/^class_note: \d+ rows, \d+ in the backup$/)
})

test('what is damaged, cut short, of another key or no backup is named, and nothing readable lies in the file', () => {
  const whole = readFileSync(backup.file)
  expect(whole.includes('Netloft')).toBe(false)
  const write = (name: string, bytes: Buffer | string) => {
    writeFileSync(join(folder, name), bytes)
    return join(folder, name)
  }
  const damaged = Buffer.from(whole)
  damaged[Math.floor(damaged.length / 2)] ^= 1
  expect(faultOf(backup.file)).toBeNull()
  expect(faultOf(write('damaged.age', damaged))).toBe('damaged.age is damaged or cut short. Take an earlier one.')
  expect(faultOf(write('cut.age', whole.subarray(0, whole.length - 1000)))).toMatch(/^cut\.age is damaged or cut short/)
  expect(faultOf(write('half.age', whole.subarray(0, 100)))).toMatch(/^half\.age is not a backup, or its beginning/)
  expect(faultOf(write('text.age', 'CREATE TABLE'))).toMatch(/^text\.age is not a backup, or its beginning/)
  expect(faultOf(backup.file, 'other-key.txt')).toMatch(/was made with another key/)
  write('empty-key.txt', '# nothing\n')
  expect(() => faultOf(backup.file, 'empty-key.txt')).toThrow(/holds no key/)
  expect(readdirSync(folder).filter((name) => name.endsWith('.new'))).toEqual([])
})

test('a database that cannot be read leaves no backup behind', () => {
  const wrong = Object.assign(new URL(from), { password: 'wrong' }).href
  const said = runModule<string>(
    `${IMPORTS} const of = { url: ${JSON.stringify(wrong)}, folder: FOLDER + '/none', now: new Date() };` +
      `const made = makeBackup({ ...of, recipient: key.recipient });` +
      `console.log(JSON.stringify(await made.then(() => 'made', (e) => e.message)))`,
  )
  expect(said).toMatch(/mariadb-dump ended with \d+: .*Access denied/)
  expect(readdirSync(join(folder, 'none'))).toEqual([])
})

test('of hourly backups over two years the latest six, and the last of 7 days, 5 weeks and 12 months stay', () => {
  const stays = runModule<string[]>(
    `import { outdatedBackups } from '${SCRIPTS}/backupFiles.mjs';` +
      `const all = Array.from({ length: 24 * 730 }, (_, i) => ({ at: new Date(Date.UTC(2024, 0, 1) + 3600e3 * i) }));` +
      `const gone = new Set(outdatedBackups(all));` +
      `console.log(JSON.stringify(all.filter((one) => !gone.has(one)).map(({ at }) => at.toISOString().slice(0, 13))))`,
  )
  const latest = ['18', '19', '20', '21', '22', '23'].map((hour) => `2025-12-30T${hour}`)
  const days = ['24', '25', '26', '27', '28', '29'].map((day) => `2025-12-${day}T23`)
  const sundays = ['2025-12-07T23', '2025-12-14T23', '2025-12-21T23']
  const months = Array.from({ length: 11 }, (_, i) => new Date(Date.UTC(2025, i + 1, 0, 23)).toISOString().slice(0, 13))
  expect(stays).toEqual([...months, ...sundays, ...days, ...latest].sort())
})

test('two that copy one log at once leave it whole', () => {
  const text = runModule<string>(
    `${IMPORTS} import { encryptFile } from '${SCRIPTS}/makeBackup.mjs';` +
      `import { openFile } from '${SCRIPTS}/readBackup.mjs'; import { randomBytes } from 'node:crypto';` +
      `import { writeFileSync } from 'node:fs'; const bytes = randomBytes(3e6); ` +
      `writeFileSync(FOLDER + '/log', bytes); const to = FOLDER + '/log.age';` +
      `await Promise.all([1, 2, 3].map(() => encryptFile(FOLDER + '/log', to, key.recipient)));` +
      `const parts = []; for await (const part of openFile(to, key.identity)) parts.push(part);` +
      `console.log(JSON.stringify(Buffer.concat(parts).equals(bytes) ? 'whole' : 'broken'))`,
  )
  expect(text).toBe('whole')
})

test('a backup is named by its path or its name alone; another name is no file', () => {
  const name = backup.file.split('/').at(-1)!
  const found = runModule<string[]>(
    `import { backupNamed } from '${SCRIPTS}/backupFiles.mjs';` +
      `const of = (name) => { try { return backupNamed(process.env.FOLDER, name) } catch (e) { return e.message } };` +
      `console.log(JSON.stringify([${JSON.stringify(backup.file)}, '${name}', 'other.age'].map(of)))`,
  )
  expect(found).toEqual([backup.file, backup.file, `There is no file other.age, here or in ${folder}.`])
})

test('binary logs are replayed only as far as none is missing between', () => {
  const [whole, gap, lost] = runModule<string[][]>(
    `import { unbroken } from '${SCRIPTS}/restoreStudio.mjs';` +
      `const names = (...all) => all.map((n) => 'saddle.' + String(n).padStart(6, '0'));` +
      `const first = 'saddle.000009';` +
      `const cases = [names(8, 9, 10), names(8, 9, 11), names(7, 10)];` +
      `console.log(JSON.stringify(cases.map((all) => unbroken(all, first))))`,
  )
  expect([whole, gap, lost]).toEqual([['saddle.000009', 'saddle.000010'], ['saddle.000009'], []])
})
