import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { endingWithItsParent } from './mariadb.mjs'
import { ended, stop } from './processes.mjs'

/**
 * The simulated angle gauge in a process of its own, on a port of loopback. Resolves with how to stop it once it
 * listens; rejects when it ends before that.
 */
export async function startGaugeProcess(root, port) {
  const [command, ...before] = endingWithItsParent(process.execPath)
  const gauge = spawn(command, [...before, join(root, 'standins', 'angleGauge.mjs'), '--port', String(port)], {
    stdio: ['pipe', 'pipe', 'inherit'],
    detached: true,
  })
  const exited = ended(gauge)
  await Promise.race([
    new Promise((resolve) => gauge.stdout.once('data', resolve)),
    exited.then((how) => {
      throw new Error(`the angle gauge did not start: ${how}`)
    }),
  ])
  return { exited, stop: () => stop(gauge) }
}
