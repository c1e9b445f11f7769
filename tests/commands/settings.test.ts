import { spawnSync } from 'node:child_process'
import { X509Certificate } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { connect, createServer, type TlsOptions } from 'node:tls'

const root = join(__dirname, '../..')
let folder: string
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'ys-settings-'))))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

type Read = Readonly<{ settings: Record<string, unknown> | null; faults: string[] }>

type Case = Readonly<{ stored: unknown; env?: Record<string, string> }>

/** What a module's code prints as JSON last, run in one plain Node. */
function runModule<T>(code: string): T {
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', code], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '' },
  })
  if (!stdout) throw new Error(stderr)
  return JSON.parse(stdout) as T
}

/** The settings as `npm start` reads them, each case from a file of its own. */
function readAll(cases: readonly Case[], home = '/home/hall'): Read[] {
  const given = cases.map(({ stored, env = {} }, i) => {
    const file = join(folder, `settings-${i}.json`)
    writeFileSync(file, typeof stored === 'string' ? stored : JSON.stringify(stored))
    return [file, env]
  })
  return runModule(
    `import { readSettings } from './scripts/support/settings.mjs'; const read = [];` +
      `for (const [file, env] of ${JSON.stringify(given)}) ` +
      `read.push(await readSettings(file, env, ${JSON.stringify(home)}));` +
      `console.log(JSON.stringify(read))`,
  )
}

type Made = Readonly<{ authority: string; certificate: string; key: string; isNewAuthority: boolean; ends: string }>

/** Certificates as `npm run certificate` makes them, each in a data folder of its own, for names at a time. */
function makeAll(wanted: readonly Readonly<{ in: string; names: string[]; at?: string }>[]): (Made | string)[] {
  const given = wanted.map((one) => ({ ...one, in: join(folder, one.in) }))
  return runModule(
    `import { makeCertificate } from './scripts/support/certificate.mjs'; const made = [];` +
      `for (const one of ${JSON.stringify(given)}) ` +
      `made.push(await makeCertificate(one.in, one.names, one.at && new Date(one.at)).catch((e) => e.message));` +
      `console.log(JSON.stringify(made))`,
  )
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
      backups: '/home/hall/backups',
      backupHours: 4,
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
  expect(open).toMatch(/needs TLS: make a certificate with .*, set tlsCertificate and tlsKey, or set trustedProxy/)
  expect(plain).toMatch(/must begin with https/)
  expect(good).toBe('')
  expect(proxy).toMatch(/trustedProxy/)
  expect(bind).toMatch(/"bind"/)
})

test('a certificate needs its own key, its time and the studio’s name', () => {
  const [own, other, old] = makeAll([
    { in: 'own', names: ['hall.test'] },
    { in: 'other', names: ['hall.test'] },
    { in: 'old', names: ['hall.test'], at: '2001-01-01' },
  ]) as Made[]
  const [tlsCertificate, tlsKey] = [own.certificate, own.key]
  const address = 'https://hall.test'
  const faults = faultsOf(
    [
      { tlsCertificate, tlsKey },
      { tlsCertificate },
      { tlsCertificate, tlsKey: other.key },
      { tlsCertificate, tlsKey: join(folder, 'nothing.pem') },
      { tlsCertificate: tlsKey, tlsKey },
      { tlsCertificate: old.certificate, tlsKey: old.key },
      { tlsCertificate, tlsKey, address: 'https://loft.test' },
    ].map((tls) => ({ stored: { address, ...tls } })),
  )
  const expected = [
    /^$/,
    /needs its key/,
    /does not belong to the certificate/,
    /There is no file/,
    /cannot be read/,
    /The certificate ended on/,
    /not for loft\.test/,
  ]
  expected.forEach((one, i) => expect(faults[i]).toMatch(one))
})

test('a studio with a certificate of its own is open by TLS, and devices learn it at the next port', () => {
  makeAll([{ in: 'lan', names: ['192.168.4.20', 'saddle.local'], at: '2001-01-01' }])
  const home = join(folder, 'lan')
  const [bare, elsewhere, proxied] = readAll(
    [
      { stored: {} },
      { stored: { address: 'https://other.local' } },
      { stored: { address: 'https://hall.example', trustedProxy: '10.0.0.2' } },
    ],
    home,
  )
  // It has ended long since: the start makes it anew by itself.
  expect(bare.faults).toEqual([])
  expect(bare.settings).toMatchObject({
    address: 'https://192.168.4.20:4077',
    bind: '0.0.0.0',
    plainPort: 4078,
    authority: join(home, 'tls/authority.pem'),
  })
  expect(elsewhere.faults.join(' ')).toMatch(/not for other\.local.*npm run certificate -- other\.local/)
  expect(proxied.settings).not.toHaveProperty('authority')
})

test('the authority stays, its keys are the owner’s alone, and it vouches for names of a house only', async () => {
  const names = ['saddle.local', '10.1.2.3', 'fd00::7']
  const [first, again, outside, none, odd] = makeAll([
    { in: 'house', names },
    { in: 'house', names: ['other.lan'] },
    { in: 'house', names: ['hall.example', '8.8.8.8'] },
    { in: 'house', names: [] },
    { in: 'house', names: ['Hall 1'] },
  ]) as [Made, Made, string, string, string]
  expect([first.isNewAuthority, again.isNewAuthority]).toEqual([true, false])
  expect(outside).toMatch(/hall\.example is a name outside[^]*8\.8\.8\.8 is an address outside/)
  expect(none).toMatch(/Name at least one address/)
  expect(odd).toMatch(/"Hall 1" is not a name of a computer/)
  const mode = (file: string) => statSync(file).mode & 0o777
  expect([mode(first.key), mode(join(folder, 'house/tls/authority-key.pem'))]).toEqual([0o600, 0o600])
  const [leaf, authority] = readFileSync(again.certificate, 'utf8')
    .match(/-----BEGIN[^]+?END CERTIFICATE-----/g)!
    .map((pem) => new X509Certificate(pem))
  expect(leaf.checkIssued(authority) && leaf.verify(authority.publicKey)).toBe(true)
  expect(authority.fingerprint256).toBe(new X509Certificate(readFileSync(first.authority)).fingerprint256)
  // No browser of a phone takes one that is good for longer: 398 days (rules of the browsers' makers, from memory).
  expect(Date.parse(leaf.validTo) - Date.parse(leaf.validFrom)).toBeLessThan(398 * 86_400_000)
})

test('whoever trusts the authority accepts the certificate, and nothing outside a house that it signed', async () => {
  const [inside] = makeAll([{ in: 'signed', names: ['saddle.local'] }]) as Made[]
  const forged = runModule<{ cert: string; key: string }>(
    `import { forgeCertificate } from './tests/commands/forgeCertificate.mjs';` +
      `console.log(JSON.stringify(await forgeCertificate(${JSON.stringify(join(folder, 'signed'))}, 'hall.example')))`,
  )
  const ca = readFileSync(inside.authority)
  const own = { cert: readFileSync(inside.certificate), key: readFileSync(inside.key) }
  await expect(visit('saddle.local', own, ca)).resolves.toBe(true)
  await expect(visit('other.local', own, ca)).rejects.toMatchObject({ code: 'ERR_TLS_CERT_ALTNAME_INVALID' })
  await expect(visit('hall.example', forged, ca)).rejects.toThrow(/permitted subtree violation/)
})

/** Whether a client that trusts `ca` alone accepts a server of this certificate as `name`. */
async function visit(name: string, server: TlsOptions, ca: Buffer): Promise<boolean> {
  const listening = createServer(server, (socket) => socket.end())
  await new Promise<void>((resolve) => listening.listen(0, '127.0.0.1', resolve))
  const { port } = listening.address() as AddressInfo
  try {
    return await new Promise((resolve, reject) => {
      const socket = connect({ host: '127.0.0.1', port, servername: name, ca }, () => {
        resolve(socket.authorized)
        socket.destroy()
      })
      socket.on('error', reject)
    })
  } finally {
    listening.close()
  }
}
