import { setTimeout as wait } from 'node:timers/promises'

/** Waits before the first, second … restart in a row, ms; then the last again and again. */
const BACK_OFF_MS = [500, 1000, 2000, 4000, 8000, 15_000]
/** A child that ran this long had started well: the next restart waits as little as the first. */
const SETTLED_MS = 30_000

/**
 * Keeps a child running: starts it, and when it ends by itself says so and starts it again, each time after a longer
 * wait. `start` resolves with `{ stop, exited }` once the child is up. Resolves after the first start, with `stop`;
 * rejects when that first start fails.
 */
export async function keepRunning({ name, start, say = console.log }) {
  let stopped = false
  let child = await start()
  let startedAt = Date.now()

  const watching = (async () => {
    for (let failures = 0; ;) {
      const how = await child.exited
      if (stopped) return
      failures = Date.now() - startedAt > SETTLED_MS ? 0 : failures
      for (let up = false; !up && !stopped;) {
        const pause = BACK_OFF_MS[Math.min(failures, BACK_OFF_MS.length - 1)]
        say(`${name} stopped by itself${how ? ` (${how})` : ''}. Starting it again …`)
        await wait(pause)
        if (stopped) return
        failures += 1
        try {
          child = await start()
          startedAt = Date.now()
          up = true
          say(`${name} is back.`)
        } catch (error) {
          say(`${name} did not start: ${String(error.message).split('\n')[0]}`)
        }
      }
      if (stopped) return child.stop()
    }
  })()

  return {
    stop: async () => {
      stopped = true
      await child.stop()
      await Promise.race([watching, wait(20_000, undefined, { ref: false })])
    },
  }
}
