import { spawn } from 'node:child_process'
import { createServer } from 'node:net'

/** Runs a command to its end. Resolves with its output; rejects with what it printed when it fails. */
export function run(command, args, { cwd, env, quiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] })
    let output = ''
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', (chunk) => {
        output += chunk
        if (!quiet) process.stdout.write(chunk)
      })
    }
    child.on('error', reject)
    child.on('close', (code) => (code === 0 ? resolve(output) : reject(Object.assign(new Error(`${command} ${args[0] ?? ''} ended with ${code}`), { code, output }))))
  })
}

/** A port nobody listens on: the wanted one when it is free, else any. */
export async function freePort(wanted = 0) {
  const probe = (port) =>
    new Promise((resolve) => {
      const server = createServer()
      server.once('error', () => resolve(null))
      server.listen(port, '127.0.0.1', () => {
        const { port: got } = server.address()
        server.close(() => resolve(got))
      })
    })
  return (await probe(wanted)) ?? (await probe(0))
}

/** Ends a child started here: politely, then for good. */
export async function stop(child, politely = 'SIGTERM', patienceMs = 8000) {
  if (!child || child.exitCode !== null || child.signalCode !== null) return
  const gone = new Promise((resolve) => child.once('exit', resolve))
  child.kill(politely)
  const timer = setTimeout(() => child.kill('SIGKILL'), patienceMs)
  await gone
  clearTimeout(timer)
}

/** Waits until an address answers at all; rejects after `patienceMs` or when the child has gone. */
export async function answering(url, child, patienceMs = 60_000) {
  const end = Date.now() + patienceMs
  while (Date.now() < end) {
    if (child.exitCode !== null) throw new Error(`the server ended with ${child.exitCode} before it answered`)
    try {
      await fetch(url, { redirect: 'manual' })
      return
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 150))
    }
  }
  throw new Error(`${url} did not answer within ${patienceMs / 1000} s`)
}
