import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { endingWithItsParent } from './mariadb.mjs'
import { ended, stop } from './processes.mjs'

/**
 * A simulated device or service in a process of its own, on a port of loopback. Resolves with how to stop it once it
 * listens; rejects when it ends before that.
 */
export async function startStandIn(root, file, port, more = []) {
  const [command, ...before] = endingWithItsParent(process.execPath)
  const path = join(root, 'standins', file)
  const standIn = spawn(command, [...before, path, '--port', String(port), ...more], {
    stdio: ['pipe', 'pipe', 'inherit'],
    detached: true,
  })
  const exited = ended(standIn)
  await Promise.race([
    new Promise((resolve) => standIn.stdout.once('data', resolve)),
    exited.then((how) => {
      throw new Error(`${file} did not start: ${how}`)
    }),
  ])
  return { exited, stop: () => stop(standIn) }
}
