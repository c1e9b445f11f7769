/**
 * The web server: the built application behind a request filter on loopback. Started by `npm run demo` and `npm test`,
 * not by hand. It ends with the process that started it: its standard input is a pipe from there.
 */
import { readFileSync, watchFile } from 'node:fs'
import { createServer } from 'node:http'
import { createServer as createTlsServer } from 'node:https'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import next from 'next'
import { diskWatch } from './support/freeSpace.mjs'
import { isBehindTls, refusalOf, setPeer, STORAGE_HEADER } from './support/requestFilter.mjs'
import { requestLog } from './support/requestLog.mjs'

const dir = dirname(dirname(fileURLToPath(import.meta.url)))
const port = Number(process.env.PORT)
const bind = process.env.BIND ?? '127.0.0.1'
const { TLS_CERTIFICATE, TLS_KEY, PROBE_PORT, PLAIN_PORT } = process.env
/** A browser that came by TLS once comes by nothing else for this long, s. */
const TLS_ONLY_S = 15_552_000
/** How often the file of the certificate is looked at, ms. */
const LOOK_AT_CERTIFICATE_MS = 60_000
const dev = process.env.NODE_ENV === 'development'
const isDiskFull = diskWatch(process.env.DATA_FOLDER)
const watched = requestLog({ key: process.env.METRICS_KEY })
const gone = () => process.exit(0)

process.stdin.resume().on('end', gone).on('error', gone)
for (const stream of [process.stdout, process.stderr]) stream.on('error', gone)
process.on('SIGTERM', () => {
  server.close(gone)
  server.closeIdleConnections()
  probes?.close()
  plain?.close()
  setTimeout(gone, 3000).unref()
})

const app = next({ dev, dir, hostname: '127.0.0.1', port })
/** @type {import('node:http').RequestListener} */
function answer(request, response) {
  watched.observe(request, response)
  if (request.url === '/metrics') return void watched.metrics(request, response)
  const isFull = isDiskFull()
  if (isFull) response.setHeader(STORAGE_HEADER, 'full')
  const refusal = refusalOf(request, isFull)
  if (refusal)
    return response.writeHead(refusal.status, { 'content-type': 'text/plain; charset=utf-8' }).end(refusal.text)
  const isOverTls = TLS_CERTIFICATE ? request.socket.encrypted : isBehindTls(request, process.env)
  setPeer(request, process.env.TRUSTED_PROXY)
  if (isOverTls) response.setHeader('strict-transport-security', `max-age=${TLS_ONLY_S}`)
  void handle(request, response)
}
const limits = { maxHeaderSize: 16_384 }
const pair = () => ({ cert: readFileSync(TLS_CERTIFICATE), key: readFileSync(TLS_KEY) })
const server = TLS_CERTIFICATE ? createTlsServer({ ...limits, ...pair() }, answer) : createServer(limits, answer)
// A certificate that was renewed is taken up without a restart; one half written is tried again at the next look.
if (TLS_CERTIFICATE)
  watchFile(TLS_CERTIFICATE, { interval: LOOK_AT_CERTIFICATE_MS, persistent: false }, () => {
    try {
      server.setSecureContext(pair())
    } catch (error) {
      console.error(`The new certificate cannot be used: ${error.message}`)
    }
  })
/** Health alone, plain and on loopback, for the process that started this one. */
const probes =
  PROBE_PORT &&
  createServer((request, response) =>
    request.url?.startsWith('/api/health') ? answer(request, response) : response.writeHead(404).end(),
  )
/** What is answered without TLS: how to trust the studio's own certificate. All else is sent to the public address. */
const plain =
  PLAIN_PORT &&
  createServer(limits, (request, response) => {
    const { method, url } = request
    if (method !== 'GET' && method !== 'HEAD') return response.writeHead(405).end()
    if (/^\/(trust([/?]|$)|_next\/static\/|icon\.svg)/.test(url)) return answer(request, response)
    response.writeHead(308, { location: `${process.env.BETTER_AUTH_URL}${url.startsWith('/') ? url : '/'}` }).end()
  })
const handle = app.getRequestHandler()
await app.prepare()
server.listen(port, bind)
if (probes) probes.listen(Number(PROBE_PORT), '127.0.0.1')
if (plain) plain.listen(Number(PLAIN_PORT), bind)
