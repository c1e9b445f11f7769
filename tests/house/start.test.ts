import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

jest.setTimeout(30_000)
const root = join(__dirname, '../..')
let folder: string
const children: ChildProcess[] = []

/** Runs a line of module code with the start scripts' own functions, as they run: in plain Node. */
function plainNode(code: string, env: Record<string, string> = {}) {
  return spawnSync(process.execPath, ['--input-type=module', '-e', code], { cwd: root, encoding: 'utf8', env: { ...process.env, NODE_OPTIONS: '', ...env } })
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'ys-start-'))
})
afterEach(() => {
  children.splice(0).forEach((child) => child.kill('SIGKILL'))
  rmSync(folder, { recursive: true, force: true })
})

const claim = () => plainNode(`import { claim } from './scripts/support/mariadb.mjs'; await claim(${JSON.stringify(folder)})`)

test('a data folder is claimed by one start, and only its owner may look into it', () => {
  expect(claim().status).toBe(0)
  expect(existsSync(join(folder, 'owner.pid'))).toBe(true)
  expect(statSync(folder).mode & 0o077).toBe(0)
})

test('while another start runs from the folder, the second is told so in words', async () => {
  const other = spawn(process.execPath, ['-e', 'setTimeout(() => {}, 20000)', 'scripts/demo.mjs'], { stdio: 'ignore' })
  children.push(other)
  writeFileSync(join(folder, 'owner.pid'), String(other.pid))
  const { status, stderr } = claim()
  expect(status).not.toBe(0)
  expect(stderr).toContain('This project is running already, from this same folder')
})

test('the mark of a start that was killed is no obstacle', () => {
  writeFileSync(join(folder, 'owner.pid'), '999999')
  expect(claim().status).toBe(0)
  expect(readFileSync(join(folder, 'owner.pid'), 'utf8')).not.toBe('999999')
})

test('a database left behind by a killed start is ended', async () => {
  const left = spawn(process.execPath, ['-e', 'setTimeout(() => {}, 20000)', '--', `--datadir=${join(folder, 'mariadb')}`], { stdio: 'ignore' })
  children.push(left)
  const gone = new Promise((resolve) => left.once('exit', (_, signal) => resolve(signal)))
  writeFileSync(join(folder, 'mariadb.pid'), String(left.pid))
  expect(claim().status).toBe(0)
  expect(await gone).toBe('SIGTERM')
})

test('a secret is made once, kept, and readable by its owner only', () => {
  const file = join(folder, 'secret')
  const once = `import { secret } from './scripts/support/mariadb.mjs'; process.stdout.write(secret(${JSON.stringify(file)}))`
  const [first, second] = [plainNode(once).stdout, plainNode(once).stdout]
  expect(first).toMatch(/^[0-9a-f]{48}$/)
  expect(second).toBe(first)
  expect(statSync(file).mode & 0o077).toBe(0)
})

test('a port that is taken is passed over for a free one', () => {
  const { stdout } = plainNode(`
    import { createServer } from 'node:net'
    import { freePort } from './scripts/support/processes.mjs'
    const server = createServer().listen(0, '127.0.0.1', async () => {
      const { port } = server.address()
      const other = await freePort(port)
      process.stdout.write(String(other !== port && other > 0))
      server.close()
    })`)
  expect(stdout).toBe('true')
})

test('what to install is said in one sentence', () => {
  const { stdout } = plainNode(`import { pleaseInstall } from './scripts/support/installed.mjs'; process.stdout.write(pleaseInstall(['mariadb-server-core', 'chromium']))`)
  expect(stdout).toBe('Please install mariadb-server-core chromium (on Debian: apt-get install mariadb-server-core chromium) and run this again.')
})

test('nothing is installed when everything is there', () => {
  const { status, stdout } = plainNode(`import { ensureDebian } from './scripts/support/installed.mjs'; await ensureDebian([{ programs: ['sh'], packages: ['none'] }])`)
  expect([status, stdout]).toEqual([0, ''])
})

test('a command that fails gives its output to whoever must say what happened', () => {
  const { stdout } = plainNode(`
    import { run } from './scripts/support/processes.mjs'
    await run(process.execPath, ['-e', 'console.log("the reason"); process.exit(3)'], { quiet: true }).catch((error) => process.stdout.write(error.code + error.output))`)
  expect(stdout).toBe('3the reason\n')
})
