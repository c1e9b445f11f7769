/**
 * `npm run trial:guesses -- 10000 1` (guesses, seed): guesses of passwords and PINs at the demo studio, over accounts
 * that exist and others, from 100 addresses of the loopback range. Among the guesses, seldom enough to be met by chance
 * alone, is the right password. Afterwards the owner signs in from one of the same addresses, on their own device.
 * Writes `docs/trials/guesses.md`.
 */
import { request } from 'node:http'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { hallIn, root } from './hall.mjs'

const [guesses, seed] = [Number(process.argv[2] ?? 10_000), Number(process.argv[3] ?? 1)]
const generator = xoroshiro128plus(seed)
const uniform = () => uniformFloat64(generator)
const oneOf = (items) => items[Math.floor(uniform() * items.length)]
const AT_ONCE = 16
const PEERS = Array.from({ length: 100 }, (_, i) => `127.0.0.${i + 10}`)
const ACCOUNTS = ['ines', 'bram', 'tove', ...Array.from({ length: 17 }, (_, i) => `nobody_${i}`)]
const RIGHT = { ines: 'tarn-ferry-rows-east', bram: 'netloft-hall-at-dusk', tove: 'keys-by-the-ferry-door' }
/** By then the limits of all 20 accounts have shut: 30 tries each in a quarter of an hour. */
const RIGHT_AFTER = 2000

const folder = mkdtempSync(join(tmpdir(), 'ys-guesses-'))
const hall = await hallIn(folder)

function post(path, body, { peer, cookie }) {
  const { hostname, port, origin } = new URL(hall.base)
  const headers = { 'content-type': 'application/json', origin, ...(cookie && { cookie }) }
  return new Promise((resolve, reject) => {
    const sent = request({ hostname, port, path, method: 'POST', localAddress: peer, headers }, (response) => {
      response.resume()
      response.on('end', () => resolve({ status: response.statusCode, cookies: response.headers['set-cookie'] ?? [] }))
    })
    sent.on('error', reject)
    sent.end(JSON.stringify(body))
  })
}
const signIn = (username, password, from) => post('/api/auth/sign-in/username', { username, password }, from)
const cookieOf = ({ cookies }, name) =>
  cookies.map((one) => one.split(';')[0]).find((one) => one.startsWith(`${name}=`))

hall.start()
const count = new Map()
let [sent, opened] = [0, 0]
let table
try {
  await hall.open()
  const owner = { peer: PEERS[40] }
  const first = await signIn('bram', RIGHT.bram, owner)
  const device = cookieOf(first, 'known_device')
  const began = performance.now()
  const guess = async () => {
    while (sent < guesses) {
      const i = ++sent
      const account = oneOf(ACCOUNTS)
      // Late enough that every limit of the account is shut: even the right word opens nothing then.
      const word = i > RIGHT_AFTER && RIGHT[account] && uniform() < 0.05 ? RIGHT[account] : `guess-${i}`
      const { status } = await signIn(account, word, { peer: oneOf(PEERS) })
      count.set(status, (count.get(status) ?? 0) + 1)
      if (status === 200) opened += 1
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, guess))
  const seconds = (performance.now() - began) / 1000
  const back = await signIn('bram', RIGHT.bram, { ...owner, cookie: device })
  const stranger = await signIn('bram', RIGHT.bram, owner)
  table = [
    ['guesses, over 20 accounts from 100 addresses', sent],
    ['of them signed in', opened],
    ['refused as wrong, 401', count.get(401) ?? 0],
    ['refused unseen, 429', count.get(429) ?? 0],
    ['any other answer', sent - opened - (count.get(401) ?? 0) - (count.get(429) ?? 0)],
    ['the owner, same address, own device', back.status],
    ['the owner, same address, a new device', stranger.status],
    ['seconds', seconds.toFixed(0)],
  ]
} finally {
  await hall.stopped('SIGTERM')
  rmSync(folder, { recursive: true, force: true })
}
writeFileSync(
  join(root, 'docs/trials/guesses.md'),
  `# Ten thousand guesses

\`npm run trial:guesses -- ${guesses} ${seed}\`: passwords guessed at a running demo
studio, the right one among them once the limits of its account are shut.

| what | found |
|---|---|
${table.map((row) => `| ${row.join(' | ')} |`).join('\n')}
`,
)
console.log(table.map((row) => row.join(': ')).join('\n'))
