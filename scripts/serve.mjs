/**
 * The web server: the built application behind a request filter on loopback. Started by `npm run demo` and `npm test`,
 * not by hand. It ends with the process that started it: its standard input is a pipe from there.
 */
import { readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { createServer as createTlsServer } from 'node:https'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import next from 'next'
import { diskWatch } from './support/freeSpace.mjs'
import { refusalOf, setPeer, STORAGE_HEADER } from './support/requestFilter.mjs'

const dir = dirname(dirname(fileURLToPath(import.meta.url)))
const port = Number(process.env.PORT)
const bind = process.env.BIND ?? '127.0.0.1'
const { TLS_CERTIFICATE, TLS_KEY, PROBE_PORT } = process.env
/** A browser that came by TLS once comes by nothing else for this long, s. */
const TLS_ONLY_S = 15_552_000
const dev = process.env.NODE_ENV === 'development'
const isDiskFull = diskWatch(process.env.DATA_FOLDER)
const gone = () => process.exit(0)

process.stdin.resume().on('end', gone).on('error', gone)
for (const stream of [process.stdout, process.stderr]) stream.on('error', gone)
process.on('SIGTERM', () => {
  server.close(gone)
  server.closeIdleConnections()
  probes?.close()
  setTimeout(gone, 3000).unref()
})

const app = next({ dev, dir, hostname: '127.0.0.1', port })
/** @type {import('node:http').RequestListener} */
function answer(request, response) {
  const isFull = isDiskFull()
  if (isFull) response.setHeader(STORAGE_HEADER, 'full')
  const refusal = refusalOf(request, isFull)
  if (refusal)
    return response.writeHead(refusal.status, { 'content-type': 'text/plain; charset=utf-8' }).end(refusal.text)
  setPeer(request, process.env.TRUSTED_PROXY)
  if (TLS_CERTIFICATE) response.setHeader('strict-transport-security', `max-age=${TLS_ONLY_S}`)
  void handle(request, response)
}
const limits = { maxHeaderSize: 16_384 }
const server = TLS_CERTIFICATE
  ? createTlsServer({ ...limits, cert: readFileSync(TLS_CERTIFICATE), key: readFileSync(TLS_KEY) }, answer)
  : createServer(limits, answer)
/** Health alone, plain and on loopback, for the process that started this one. */
const probes =
  PROBE_PORT &&
  createServer((request, response) =>
    request.url?.startsWith('/api/health') ? answer(request, response) : response.writeHead(404).end(),
  )
const handle = app.getRequestHandler()
await app.prepare()
server.listen(port, bind)
if (probes) probes.listen(Number(PROBE_PORT), '127.0.0.1')
