import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const root = join(__dirname, '../..')
let folder: string
const children: ChildProcess[] = []

/** Runs a line of module code with the start scripts' own functions, as they run: in plain Node. */
function plainNode(code: string, env: Record<string, string> = {}) {
  return spawnSync(process.execPath, ['--input-type=module', '-e', code], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '', ...env },
  })
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'ys-start-'))
})
afterEach(() => {
  children.splice(0).forEach((child) => child.kill('SIGKILL'))
  rmSync(folder, { recursive: true, force: true })
})

const claim = () =>
  plainNode(`import { claim } from './scripts/support/mariadb.mjs'; await claim(${JSON.stringify(folder)})`)

test('a data folder is claimed by one start, and only its owner may look into it', () => {
  expect(claim().status).toBe(0)
  expect(existsSync(join(folder, 'owner.pid'))).toBe(true)
  expect(statSync(folder).mode & 0o077).toBe(0)
})

test('while another start runs from the folder, the second gets the reason in words', async () => {
  const other = spawn(process.execPath, ['-e', 'setTimeout(() => {}, 600000)'], { stdio: 'ignore' })
  children.push(other)
  plainNode(
    `import { writeIdentity } from './scripts/support/identity.mjs'; writeIdentity(` +
      `${JSON.stringify(join(folder, 'owner.pid'))}, ${other.pid})`,
  )
  const { status, stderr } = claim()
  expect(status).not.toBe(0)
  expect(stderr).toContain('This project is running already, from this same folder')
})

test(
  'the mark of a start that was killed is no obstacle, also when its number was given to ' + 'another process since',
  () => {
    for (const left of ['999999 1', `${process.pid} 1`, String(process.pid), '', 'half writt']) {
      writeFileSync(join(folder, 'owner.pid'), left)
      expect(claim().status).toBe(0)
      expect(readFileSync(join(folder, 'owner.pid'), 'utf8')).not.toBe(left)
    }
  },
)

test('a secret left half written by a start that was killed is made again', () => {
  const file = join(folder, 'secret')
  writeFileSync(file, 'abc')
  expect(
    plainNode(
      `import { secret } from './scripts/support/mariadb.mjs'; process.stdout.write(secret(${JSON.stringify(file)}))`,
    ).stdout,
  ).toMatch(/^[0-9a-f]{48}$/)
})

test('a child that ends on its own is reported and restarted, each time a little later, until it is stopped', () => {
  const { stdout } = plainNode(`
    import { supervise } from './scripts/support/supervise.mjs'
    let starts = 0
    let end
    const reports = []
    const start = async () => {
      starts += 1
      if (starts === 2) throw new Error('no room')
      return { exited: new Promise((resolve) => (end = resolve)), stop: async () => end('stopped') }
    }
    const kept = await supervise({ name: 'It', start, report: (line) => reports.push(line) })
    end('SIGKILL')
    while (starts < 3) await new Promise((resolve) => setTimeout(resolve, 20))
    await new Promise((resolve) => setTimeout(resolve, 20))
    await kept.stop()
    process.stdout.write(JSON.stringify({ starts, reports }))`)
  const { starts, reports } = JSON.parse(stdout)
  expect(starts).toBe(3)
  expect(reports).toEqual([
    'It stopped by itself (SIGKILL). Starting it again …',
    'It did not start: no room',
    'It stopped by itself (SIGKILL). Starting it again …',
    'It is back.',
  ])
})

test('a child that answers no more is ended and started again after several misses in a row, not after one', () => {
  const { stdout } = plainNode(`
    import { supervise } from './scripts/support/supervise.mjs'
    let starts = 0
    let [asked, killed] = [0, 0]
    const reports = []
    const start = async () => {
      starts += 1
      const first = starts === 1
      let end
      return {
        exited: new Promise((resolve) => (end = resolve)),
        stop: async () => end('stopped'),
        kill: () => { killed += 1; end('SIGKILL') },
        // Much to do: one answer in three comes in time, then none.
        answers: async () => { asked += 1; return !first || (asked < 8 && asked % 3 === 0) },
      }
    }
    const patience = { everyMs: 5, answerMs: 5, misses: 3 }
    const kept = await supervise({ name: 'It', start, report: (line) => reports.push(line), patience })
    while (starts < 2) await new Promise((resolve) => setTimeout(resolve, 5))
    while (asked < 20) await new Promise((resolve) => setTimeout(resolve, 5))
    await kept.stop()
    process.stdout.write(JSON.stringify({ starts, killed, reports }))`)
  expect(JSON.parse(stdout)).toEqual({
    starts: 2,
    killed: 1,
    reports: [
      'It has not answered for about 0 s: it hangs, and is ended.',
      'It was ended (SIGKILL). Starting it again …',
      'It is back.',
    ],
  })
})

test('a log that cannot be written is reported once, left out for a while, and started again', () => {
  const { status, stdout } = plainNode(`
    import { Writable } from 'node:stream'
    import { serverLog } from './scripts/support/serverLog.mjs'
    let [clock, opened, full] = [0, 0, true]
    const [reports, written] = [[], []]
    const open = () => {
      opened += 1
      return new Writable({
        write(chunk, _, done) {
          if (full) return done(Object.assign(new Error('write'), { code: 'ENOSPC' }))
          written.push(String(chunk))
          done()
        },
      })
    }
    const log = serverLog('x', { report: (line) => reports.push(line), open, now: () => clock })
    const turn = () => new Promise((resolve) => setImmediate(resolve))
    for (let i = 0; i < 5; i++) { log.write('lost'); await turn() }
    clock = 40_000
    log.write('lost too'); await turn()
    full = false
    clock = 80_000
    log.write('kept'); await turn()
    process.stdout.write(JSON.stringify({ opened, reports, written }))`)
  expect(status).toBe(0)
  expect(JSON.parse(stdout)).toEqual({
    opened: 3,
    reports: ['The server’s log cannot be written (ENOSPC); the studio goes on without it.'],
    written: ['kept'],
  })
})

test('on a full disk writing is refused with its reason, reading goes on, and a fault is reported in words', () => {
  const { stdout } = plainNode(`
    import { describeFault, diskWatch, MIN_FREE } from './scripts/support/freeSpace.mjs'
    import { refusalOf } from './scripts/support/requestFilter.mjs'
    let [clock, bytes] = [0, MIN_FREE + 1]
    const isFull = diskWatch('x', { free: () => bytes, now: () => clock })
    const seen = [isFull()]
    bytes = 0
    clock += 5000
    seen.push(isFull())
    bytes = null
    clock += 5000
    seen.push(isFull())
    const status = (method, url) => refusalOf({ method, url, headers: {} }, true)?.status ?? 200
    process.stdout.write(JSON.stringify([
      seen,
      [status('POST', '/api/outbox'), status('DELETE', '/api/files/1'), status('GET', '/members'),
        status('POST', '/api/auth/sign-in/username')],
      describeFault(Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' })),
      describeFault(Object.assign(new Error('MariaDB did not start.'), { output: 'x' })),
    ]))`)
  expect(JSON.parse(stdout)).toEqual([
    [false, true, false],
    [507, 507, 200, 200],
    'The disk is full: there is no room for the studio’s data. Nothing that was kept is lost. ' +
      'Make room, and start again.',
    'MariaDB did not start.\nx',
  ])
})

test('a child started here ends when its starter is killed', async () => {
  const code = `
    import { spawn } from 'node:child_process'
    import { endingWithItsParent } from './scripts/support/mariadb.mjs'
    const [command, ...before] = endingWithItsParent('/bin/sleep')
    const child = spawn(command, [...before, '600'], { detached: true, stdio: 'ignore' })
    process.stdout.write(String(child.pid))
    setInterval(() => {}, 1000)`
  const parent = spawn(process.execPath, ['--input-type=module', '-e', code], {
    cwd: root,
    env: { ...process.env, NODE_OPTIONS: '' },
  })
  children.push(parent)
  const pid = Number(
    await new Promise<string>((resolve) => parent.stdout.once('data', (chunk) => resolve(String(chunk)))),
  )
  expect(existsSync(`/proc/${pid}`)).toBe(true)
  parent.kill('SIGKILL')
  while (existsSync(`/proc/${pid}`) && !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8')))
    await new Promise((resolve) => setTimeout(resolve, 50))
})

test('a database left behind by a killed start is ended', async () => {
  const left = spawn(
    process.execPath,
    ['-e', 'setTimeout(() => {}, 600000)', '--', `--datadir=${join(folder, 'mariadb')}`],
    { stdio: 'ignore' },
  )
  children.push(left)
  const gone = new Promise((resolve) => left.once('exit', (_, signal) => resolve(signal)))
  writeFileSync(join(folder, 'mariadb.pid'), String(left.pid))
  expect(claim().status).toBe(0)
  expect(await gone).toBe('SIGTERM')
})

test('a secret is made once, stored, and readable by its owner only', () => {
  const file = join(folder, 'secret')
  const once =
    `import { secret } from './scripts/support/mariadb.mjs'; process.stdout.write(secret(` + `${JSON.stringify(file)}))`
  const [first, second] = [plainNode(once).stdout, plainNode(once).stdout]
  expect(first).toMatch(/^[0-9a-f]{48}$/)
  expect(second).toBe(first)
  expect(statSync(file).mode & 0o077).toBe(0)
})

test('before the application: addresses that cannot be read, pages of other sites, and forged client addresses', () => {
  const { stdout } = plainNode(`
    import { isBehindTls, refusalOf, setPeer } from './scripts/support/requestFilter.mjs'
    const status = (url, headers = {}, method = 'GET') => refusalOf({ method, url, headers })?.status ?? 200
    const peer = (claimed, proxy) => {
      const request = { socket: { remoteAddress: '10.0.0.9' }, headers: { ...claimed } }
      setPeer(request, proxy)
      return request.headers
    }
    const here = { host: '127.0.0.1:1' }
    process.stdout.write(JSON.stringify([
      ['/members', '/riders/%ff', '/x%00', '/' + 'a'.repeat(3000)].map((url) => status(url)),
      [undefined, 'http://127.0.0.1:1', 'http://evil.example', 'null'].map((origin) =>
        status('/members', { ...here, ...(origin && { origin }) }, 'POST')),
      [
        peer({ 'x-forwarded-for': '1.2.3.4', 'x-real-ip': '1.2.3.4' }),
        peer({ 'x-forwarded-for': '1.2.3.4, 5.6.7.8' }, '10.0.0.9'),
        peer({ 'x-forwarded-for': '1.2.3.4' }, '10.0.0.1'),
      ],
      [['10.0.0.9', 'https://a.example'], ['10.0.0.1', 'https://a.example'], ['10.0.0.9', 'http://a.example'], []].map(
        ([TRUSTED_PROXY, BETTER_AUTH_URL]) =>
          isBehindTls({ socket: { remoteAddress: '10.0.0.9' } }, { TRUSTED_PROXY, BETTER_AUTH_URL })),
    ]))`)
  expect(JSON.parse(stdout)).toEqual([
    [200, 400, 400, 414],
    [200, 200, 403, 403],
    [{ 'x-forwarded-for': '10.0.0.9' }, { 'x-forwarded-for': '5.6.7.8' }, { 'x-forwarded-for': '10.0.0.9' }],
    [true, false, false, false],
  ])
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

test('what to install is one sentence', () => {
  const { stdout } = plainNode(
    `import { pleaseInstall } from './scripts/support/installed.mjs'; ` +
      `process.stdout.write(pleaseInstall(['mariadb-server-core', 'chromium']))`,
  )
  expect(stdout).toBe(
    'Please install mariadb-server-core chromium (on Debian: apt-get install ' +
      'mariadb-server-core chromium) and run this again.',
  )
})

test('nothing is installed when everything is there', () => {
  const { status, stdout } = plainNode(
    `import { ensureDebian } from './scripts/support/installed.mjs'; await ensureDebian([{ ` +
      `programs: ['sh'], packages: ['none'] }])`,
  )
  expect([status, stdout]).toEqual([0, ''])
})

test('a command that fails gives its output to the caller for its message', () => {
  const { stdout } = plainNode(`
    import { run } from './scripts/support/processes.mjs'
    await run(process.execPath, ['-e', 'console.log("the reason"); process.exit(3)'], { quiet: true })
      .catch((error) => process.stdout.write(error.code + error.output))`)
  expect(stdout).toBe('3the reason\n')
})
