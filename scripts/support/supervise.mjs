import { setTimeout as wait } from 'node:timers/promises'

/** Waits before the first, second … restart in a row, ms; then the last again and again. */
const BACK_OFF_MS = [500, 1000, 2000, 4000, 8000, 15_000]
/** A child that ran this long had started well: the next restart waits as little as the first. */
const SETTLED_MS = 30_000

/**
 * Health probes: interval, response timeout and number of consecutive misses, about two minutes in total. A busy
 * machine misses single probes; a blocked event loop misses all of them.
 */
export const PATIENCE = Object.freeze({ everyMs: 10_000, answerMs: 15_000, misses: 5 })

/**
 * Supervises a child process: restarts it with back-off after it exits or hangs, and prints a message. `start` resolves
 * with `{ stop, exited }` once the child is up. A child with `kill` and `answers(ms)` (resolves with whether it
 * responded in time) is also probed. Resolves with `{ stop }` after the first start; rejects if that start fails.
 */
export async function supervise({ name, start, report = console.log, patience = PATIENCE }) {
  let stopped = false
  let child = await start()
  let startedAt = Date.now()
  let hung = watchAnswers(child)

  /** Kills a child that misses too many probes in a row. Resolves with whether it did, once the child exits. */
  async function watchAnswers(watched) {
    if (!watched.answers) return false
    const gone = new AbortController()
    void watched.exited.then(() => gone.abort())
    for (let misses = 0; ;) {
      await wait(patience.everyMs, undefined, { ref: false, signal: gone.signal }).catch(() => undefined)
      if (gone.signal.aborted || stopped) return false
      const answered = await watched.answers(patience.answerMs)
      if (gone.signal.aborted || stopped) return false
      misses = answered ? 0 : misses + 1
      if (misses < patience.misses) continue
      const seconds = Math.round((misses * (patience.everyMs + patience.answerMs)) / 1000)
      report(`${name} has not answered for about ${seconds} s: it hangs, and is ended.`)
      watched.kill()
      return true
    }
  }

  const watching = (async () => {
    for (let failures = 0; ;) {
      const how = await child.exited
      const wasHung = await hung
      if (stopped) return
      // A hung child is likely to hang again, so the back-off grows further.
      failures = !wasHung && Date.now() - startedAt > SETTLED_MS ? 0 : failures
      for (let up = false; !up && !stopped;) {
        const pause = BACK_OFF_MS[Math.min(failures, BACK_OFF_MS.length - 1)]
        report(`${name} ${wasHung ? 'was ended' : 'stopped by itself'}${how ? ` (${how})` : ''}. Starting it again …`)
        await wait(pause)
        if (stopped) return
        failures += 1
        try {
          child = await start()
          startedAt = Date.now()
          up = true
          hung = watchAnswers(child)
          report(`${name} is back.`)
        } catch (error) {
          report(`${name} did not start: ${String(error.message).split('\n')[0]}`)
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
