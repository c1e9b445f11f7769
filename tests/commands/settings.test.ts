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

type Case = Readonly<{ stored: unknown; env?: Record<string, string> }>

/** The settings as `npm start` reads them, each case from a file of its own, all in one plain Node. */
function readAll(cases: readonly Case[]): Read[] {
  const given = cases.map(({ stored, env = {} }, i) => {
    const file = join(folder, `settings-${i}.json`)
    writeFileSync(file, typeof stored === 'string' ? stored : JSON.stringify(stored))
    return [file, env]
  })
  const code =
    `import { readSettings } from './scripts/support/settings.mjs'; const read = [];` +
    `for (const [file, env] of ${JSON.stringify(given)}) read.push(await readSettings(file, env, '/home/hall'));` +
    `console.log(JSON.stringify(read))`
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', code], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '' },
  })
  if (!stdout) throw new Error(stderr)
  return JSON.parse(stdout) as Read[]
}
const faultsOf = (cases: readonly Case[]): string[] => readAll(cases).map(({ faults }) => faults.join(' '))

test('with nothing set a studio of this computer alone, and the environment goes before the file', () => {
  const env = { SADDLE_PORT: '4200', SADDLE_DATABASE: 'mysql://a:b@db:3306/hall' }
  const [bare, both] = readAll([{ stored: {} }, { stored: { port: 4100 }, env }])
  expect(bare).toEqual({
    faults: [],
    settings: {
      data: '/home/hall',
      database: 'embedded',
      port: 4077,
      bind: '127.0.0.1',
      address: 'http://127.0.0.1:4077',
    },
  })
  expect(both.settings).toMatchObject({ port: 4200, database: 'mysql://a:b@db:3306/hall' })
})

test('every fault is said with its setting and what it should be', () => {
  const [wrong, cut, list, port] = readAll([
    { stored: { port: 70_000, database: 'sqlite', colour: 'red' }, env: { SADDLE_BIND: '' } },
    { stored: '{ "port": ' },
    { stored: '[]' },
    { stored: {}, env: { SADDLE_PORT: 'four' } },
  ])
  expect(wrong.settings).toBeNull()
  expect(wrong.faults).toHaveLength(3)
  expect(wrong.faults.join(' ')).toMatch(/"port" \(SADDLE_PORT\) cannot be 70000: it is port, 1 to 65535/)
  expect(wrong.faults.join(' ')).toMatch(/"database" .* cannot be "sqlite"/)
  expect(wrong.faults.join(' ')).toMatch(/"colour" is not known\. Known are data, database/)
  expect(cut.faults[0]).toMatch(/is not JSON/)
  expect(list.faults[0]).toMatch(/must hold one JSON object/)
  expect(port.faults[0]).toMatch(/cannot be "four"/)
})

test('what others reach needs TLS or a proxy in front, and an address that begins with https', () => {
  const proxied = { bind: '0.0.0.0', trustedProxy: '10.0.0.2' }
  const address = 'https://hall.example'
  const [open, plain, good, proxy, bind] = faultsOf([
    { stored: { bind: '0.0.0.0' } },
    { stored: proxied },
    { stored: { ...proxied, address } },
    { stored: { ...proxied, address, trustedProxy: 'proxy' } },
    { stored: { address, bind: 'everywhere' } },
  ])
  expect(open).toMatch(/needs TLS: set tlsCertificate and tlsKey, or trustedProxy/)
  expect(plain).toMatch(/must begin with https/)
  expect(good).toBe('')
  expect(proxy).toMatch(/trustedProxy/)
  expect(bind).toMatch(/"bind"/)
})

test('a certificate needs its own key, its time and the studio’s name', async () => {
  const name = [{ name: 'commonName', value: 'hall.example' }]
  const past = { notBeforeDate: new Date('2001-01-01'), notAfterDate: new Date('2002-01-01') }
  const [own, other, old] = [await generate(name), await generate(), await generate(name, past)]
  const file = (title: string, text: string) => {
    const path = join(folder, `${title}.pem`)
    writeFileSync(path, text)
    return path
  }
  const [cert, key] = [file('cert', own.cert), file('key', own.private)]
  const address = 'https://hall.example'
  const faults = faultsOf(
    [
      { tlsCertificate: cert, tlsKey: key },
      { tlsCertificate: cert },
      { tlsCertificate: cert, tlsKey: file('other', other.private) },
      { tlsCertificate: cert, tlsKey: join(folder, 'nothing.pem') },
      { tlsCertificate: key, tlsKey: key },
      { tlsCertificate: file('old', old.cert), tlsKey: file('oldKey', old.private) },
      { tlsCertificate: cert, tlsKey: key, address: 'https://loft.example' },
    ].map((tls) => ({ stored: { address, ...tls } })),
  )
  const expected = [
    /^$/,
    /needs its key/,
    /does not belong to the certificate/,
    /There is no file/,
    /cannot be read/,
    /The certificate ended on/,
    /not for loft\.example/,
  ]
  expected.forEach((one, i) => expect(faults[i]).toMatch(one))
})
