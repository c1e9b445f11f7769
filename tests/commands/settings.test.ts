import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { generate } from 'selfsigned'

const root = join(__dirname, '../..')
let folder: string
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'ys-settings-'))))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

type Read = Readonly<{ settings: Record<string, unknown> | null; faults: string[] }>

/** The settings as `npm start` reads them, in plain Node. */
function read(stored: unknown, env: Record<string, string> = {}): Read {
  const file = join(folder, 'settings.json')
  writeFileSync(file, typeof stored === 'string' ? stored : JSON.stringify(stored))
  const code =
    `import { readSettings } from './scripts/support/settings.mjs';` +
    `console.log(JSON.stringify(await readSettings(${JSON.stringify(file)}, ${JSON.stringify(env)}, '/home/hall')))`
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', code], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '' },
  })
  if (!stdout) throw new Error(stderr)
  return JSON.parse(stdout) as Read
}

test('with nothing set a studio of this computer alone, and the environment goes before the file', () => {
  expect(read({})).toEqual({
    faults: [],
    settings: {
      data: '/home/hall',
      database: 'embedded',
      port: 4077,
      bind: '127.0.0.1',
      address: 'http://127.0.0.1:4077',
    },
  })
  const { settings } = read({ port: 4100 }, { SADDLE_PORT: '4200', SADDLE_DATABASE: 'mysql://a:b@db:3306/hall' })
  expect(settings).toMatchObject({ port: 4200, database: 'mysql://a:b@db:3306/hall' })
})

test('every fault is said with its setting and what it should be', () => {
  const { settings, faults } = read({ port: 70_000, database: 'sqlite', colour: 'red' }, { SADDLE_BIND: '' })
  expect(settings).toBeNull()
  expect(faults).toHaveLength(3)
  expect(faults.join(' ')).toMatch(/"port" \(SADDLE_PORT\) cannot be 70000: it is port, 1 to 65535/)
  expect(faults.join(' ')).toMatch(/"database" .* cannot be "sqlite"/)
  expect(faults.join(' ')).toMatch(/"colour" is not known\. Known are data, database/)
  expect(read('{ "port": ').faults[0]).toMatch(/is not JSON/)
  expect(read('[]').faults[0]).toMatch(/must hold one JSON object/)
  expect(read({}, { SADDLE_PORT: 'four' }).faults[0]).toMatch(/cannot be "four"/)
})

test('what others reach needs TLS or a proxy in front, and an address that begins with https', () => {
  expect(read({ bind: '0.0.0.0' }).faults.join(' ')).toMatch(
    /needs TLS: set tlsCertificate and tlsKey, or trustedProxy/,
  )
  const proxied = { bind: '0.0.0.0', trustedProxy: '10.0.0.2' }
  expect(read(proxied).faults.join(' ')).toMatch(/must begin with https/)
  expect(read({ ...proxied, address: 'https://hall.example' }).faults).toEqual([])
  expect(read({ ...proxied, address: 'https://hall.example', trustedProxy: 'proxy' }).faults[0]).toMatch(/trustedProxy/)
  expect(read({ address: 'https://hall.example', bind: 'everywhere' }).faults.join(' ')).toMatch(/"bind"/)
})

test('a certificate needs its own key, its time and the studio’s name', async () => {
  const [good, other] = [await generate([{ name: 'commonName', value: 'hall.example' }]), await generate()]
  const past = { notBeforeDate: new Date('2001-01-01'), notAfterDate: new Date('2002-01-01') }
  const old = await generate([{ name: 'commonName', value: 'hall.example' }], past)
  const paths = Object.fromEntries(
    Object.entries({
      cert: good.cert,
      key: good.private,
      other: other.private,
      old: old.cert,
      oldKey: old.private,
    }).map(([name, text]) => {
      const path = join(folder, `${name}.pem`)
      writeFileSync(path, text)
      return [name, path]
    }),
  )
  const faults = (tlsCertificate?: string, tlsKey?: string, address = 'https://hall.example') =>
    read({ address, ...(tlsCertificate && { tlsCertificate }), ...(tlsKey && { tlsKey }) }).faults.join(' ')
  expect(faults(paths.cert, paths.key)).toBe('')
  expect(faults(paths.cert)).toMatch(/needs its key/)
  expect(faults(paths.cert, paths.other)).toMatch(/does not belong to the certificate/)
  expect(faults(paths.cert, join(folder, 'nothing.pem'))).toMatch(/There is no file/)
  expect(faults(paths.key, paths.key)).toMatch(/cannot be read/)
  expect(faults(paths.old, paths.oldKey)).toMatch(/The certificate ended on/)
  expect(faults(paths.cert, paths.key, 'https://loft.example')).toMatch(/not for loft\.example/)
})
