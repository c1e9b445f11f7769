import { setTimeout as wait } from 'node:timers/promises'

/** Waits before the first, second … restart in a row, ms; then the last again and again. */
const BACK_OFF_MS = [500, 1000, 2000, 4000, 8000, 15_000]
/** A child that ran this long had started well: the next restart waits as little as the first. */
const SETTLED_MS = 30_000

/**
 * How a child is asked whether it still answers: every so often, each time with patience, and taken for hung only after
 * several misses in a row, over a minute in all; a machine with much to do is no hung server.
 */
export const PATIENCE = Object.freeze({ everyMs: 10_000, answerMs: 15_000, misses: 5 })

/**
 * Keeps a child running: starts it, and when it ends by itself, or answers no more, says so and starts it again, each
 * time after a longer wait. `start` resolves with `{ stop, exited }` once the child is up; where it also has `kill` and
 * `answers(ms)` (resolves with whether it answered within that), a hung one is noticed. Resolves after the first start,
 * with `stop`; rejects when that first start fails.
 */
export async function keepRunning({ name, start, say = console.log, patience = PATIENCE }) {
  let stopped = false
  let child = await start()
  let startedAt = Date.now()
  let hung = watchAnswers(child)

  /** Ends a child that misses too many answers in a row; resolves with whether it did, once the child is gone. */
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
      say(`${name} has not answered for about ${seconds} s: it hangs, and is ended.`)
      watched.kill()
      return true
    }
  }

  const watching = (async () => {
    for (let failures = 0; ;) {
      const how = await child.exited
      const wasHung = await hung
      if (stopped) return
      // What hung is likely to hang again: it does not count as having run well.
      failures = !wasHung && Date.now() - startedAt > SETTLED_MS ? 0 : failures
      for (let up = false; !up && !stopped;) {
        const pause = BACK_OFF_MS[Math.min(failures, BACK_OFF_MS.length - 1)]
        say(`${name} ${wasHung ? 'was ended' : 'stopped by itself'}${how ? ` (${how})` : ''}. Starting it again …`)
        await wait(pause)
        if (stopped) return
        failures += 1
        try {
          child = await start()
          startedAt = Date.now()
          up = true
          hung = watchAnswers(child)
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
