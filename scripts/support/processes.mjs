import { spawn } from 'node:child_process'
import { createServer } from 'node:net'

/** Commands that `run` waits for. */
const running = new Set()

/** Stops every command that `run` waits for. */
export const stopRunning = () => Promise.all([...running].map((child) => stop(child)))

/** Runs a command to its end. Resolves with its output; rejects with what it printed when it fails. */
export function run(command, args, { cwd, env, quiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] })
    running.add(child)
    child.once('exit', () => running.delete(child))
    let output = ''
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', (chunk) => {
        output += chunk
        if (!quiet) process.stdout.write(chunk)
      })
    }
    child.on('error', reject)
    child.on('close', (code) =>
      code === 0
        ? resolve(output)
        : reject(Object.assign(new Error(`${command} ${args[0] ?? ''} ended with ${code}`), { code, output })),
    )
  })
}

/** Whether nobody listens on a port of loopback. */
export const isFree = async (port) => (await portFrom(port)) !== null

/** A port nobody listens on: the requested one when it is free, else any. */
export const freePort = async (preferred = 0) => (await portFrom(preferred)) ?? (await portFrom(0))

function portFrom(port) {
  return new Promise((resolve) => {
    const server = createServer()
    server.once('error', () => resolve(null))
    server.listen(port, '127.0.0.1', () => {
      const { port: got } = server.address()
      server.close(() => resolve(got))
    })
  })
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

/** Resolves when a child has ended, with how: "code 1" or "SIGKILL". */
export const ended = (child) =>
  new Promise((resolve) => child.once('exit', (code, signal) => resolve(signal ?? `code ${code}`)))

/** Whether a URL responds within `ms`, with any status. */
export async function answers(url, ms) {
  try {
    const response = await fetch(url, { redirect: 'manual', signal: AbortSignal.timeout(ms) })
    await response.body?.cancel()
    return true
  } catch {
    return false
  }
}

/** Waits until an address answers with a status below 400; rejects after `patienceMs` or when the child has gone. */
export async function healthy(url, child, patienceMs = 120_000) {
  const end = Date.now() + patienceMs
  let last = 'nothing'
  while (Date.now() < end) {
    if (child.exitCode !== null || child.signalCode !== null)
      throw new Error(`it ended with ${child.exitCode ?? child.signalCode} before it answered`)
    try {
      const { status } = await fetch(url, { redirect: 'manual', signal: AbortSignal.timeout(10_000) })
      if (status < 400) return
      last = `status ${status}`
    } catch (error) {
      if (error.cause?.message === 'bad port') throw new Error(`browsers open no pages at this port; name another`)
      last = error.cause?.code ?? error.name
    }
    await new Promise((resolve) => setTimeout(resolve, 150))
  }
  throw new Error(`${url} did not answer well within ${patienceMs / 1000} s (last: ${last})`)
}
