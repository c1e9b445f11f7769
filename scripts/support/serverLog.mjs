import { mkdirSync } from 'node:fs'
import { createStream } from 'rotating-file-stream'

/** Delay before the log is reopened after an error, ms. */
const AGAIN_MS = 30_000

/**
 * Writes the server's output to a rotating log. After a write error, for example on a full disk, prints one message,
 * drops output and reopens the log later.
 */
export function serverLog(folder, { report = console.log, open = openRotated, now = Date.now } = {}) {
  let stream = null
  let [failedAt, isReported] = [-Infinity, false]
  const failed = (error) => {
    stream?.removeAllListeners('error')
    stream?.on('error', () => undefined)
    stream = null
    failedAt = now()
    if (!isReported)
      report(`The server’s log cannot be written (${error.code ?? error.message}); the studio goes on without it.`)
    isReported = true
  }
  return {
    write(chunk) {
      if (!stream && now() - failedAt < AGAIN_MS) return
      try {
        stream ??= open(folder).on('error', failed)
        stream.write(chunk)
      } catch (error) {
        failed(error)
      }
    },
  }
}

function openRotated(folder) {
  mkdirSync(folder, { recursive: true })
  return createStream('server.log', { path: folder, size: '5M', maxFiles: 4 })
}
