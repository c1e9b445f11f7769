/**
 * The web server: the built application behind a request filter on loopback. Started by `npm run demo` and `npm test`,
 * not by hand. It ends with the process that started it: its standard input is a pipe from there.
 */
import { createServer } from 'node:http'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import next from 'next'
import { diskWatch } from './support/freeSpace.mjs'
import { refusalOf, setPeer, STORAGE_HEADER } from './support/requestFilter.mjs'

const dir = dirname(dirname(fileURLToPath(import.meta.url)))
const port = Number(process.env.PORT)
const dev = process.env.NODE_ENV === 'development'
const isDiskFull = diskWatch(process.env.DATA_FOLDER)
const gone = () => process.exit(0)

process.stdin.resume().on('end', gone).on('error', gone)
for (const stream of [process.stdout, process.stderr]) stream.on('error', gone)
process.on('SIGTERM', () => {
  server.close(gone)
  server.closeIdleConnections()
  setTimeout(gone, 3000).unref()
})

const app = next({ dev, dir, hostname: '127.0.0.1', port })
const server = createServer({ maxHeaderSize: 16_384 }, (request, response) => {
  const isFull = isDiskFull()
  if (isFull) response.setHeader(STORAGE_HEADER, 'full')
  const refusal = refusalOf(request, isFull)
  if (refusal)
    return response.writeHead(refusal.status, { 'content-type': 'text/plain; charset=utf-8' }).end(refusal.text)
  setPeer(request, process.env.TRUSTED_PROXY)
  void handle(request, response)
})
const handle = app.getRequestHandler()
await app.prepare()
server.listen(port, '127.0.0.1')
