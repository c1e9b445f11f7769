import { spawn } from 'node:child_process'
import { setTimeout as wait } from 'node:timers/promises'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { freePort } from '../support/processes.mjs'

export const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))))
const OPEN_WITHIN_MS = 300_000

/**
 * The demo studio in a data folder of its own, started, killed and started again by a trial; `env` goes before its own.
 */
export async function hallIn(folder, env = {}) {
  const port = await freePort()
  const base = `http://127.0.0.1:${port}`
  let demo

  function start() {
    const args = ['scripts/demo.mjs', '--data', folder, '--port', String(port)]
    demo = spawn(process.execPath, args, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
      detached: true,
    })
    demo.output = ''
    for (const stream of [demo.stdout, demo.stderr]) stream.on('data', (chunk) => (demo.output += chunk))
    demo.over = new Promise((resolve) => demo.once('exit', resolve))
  }

  async function open() {
    const end = Date.now() + OPEN_WITHIN_MS
    while (Date.now() < end) {
      if (demo.exitCode !== null) throw new Error(`the start ended: ${demo.output}`)
      if (demo.output.includes('is open')) return
      await wait(50)
    }
    throw new Error(`not open within ${OPEN_WITHIN_MS / 1000} s: ${demo.output}`)
  }

  async function stopped(signal) {
    if (!demo) return
    if (demo.exitCode === null && demo.signalCode === null) demo.kill(signal)
    await demo.over
  }

  /** Signs Ines in; the cookies as a header. */
  async function signIn() {
    const response = await fetch(`${base}/api/auth/sign-in/username`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: base },
      body: JSON.stringify({ username: 'ines', password: 'tarn-ferry-rows-east' }),
    })
    if (!response.ok) throw new Error(`sign-in answered ${response.status}`)
    return response.headers
      .getSetCookie()
      .map((cookie) => cookie.split(';')[0])
      .join('; ')
  }

  return {
    base,
    start,
    open,
    stopped,
    signIn,
    output: () => demo?.output ?? '',
    over: () => demo.over,
    isRunning: () => demo.exitCode === null && demo.signalCode === null,
  }
}
