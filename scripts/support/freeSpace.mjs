import { statfsSync } from 'node:fs'

/** The server rejects writes below this free space, bytes; the database needs a reserve to recover. */
export const MIN_FREE = 48_000_000
/** Minimum interval between two checks, ms. */
const EVERY_MS = 1000

/** Returns a function that reports whether a folder's disk is full. `free` returns free bytes, or null if unknown. */
export function diskWatch(folder, { free = freeBytes, now = Date.now } = {}) {
  let [checkedAt, full] = [-Infinity, false]
  return () => {
    if (now() - checkedAt < EVERY_MS) return full
    checkedAt = now()
    const bytes = folder ? free(folder) : null
    full = bytes !== null && bytes < MIN_FREE
    return full
  }
}

/** Free bytes of a folder's disk; null on error. */
export function freeBytes(folder) {
  try {
    const { bavail, bsize } = statfsSync(folder)
    return bavail * bsize
  } catch {
    return null
  }
}

/** Message for a startup error: one sentence for a full disk, else the error's own text. */
export function describeFault(error) {
  const text = `${error?.message ?? error}${error?.output ? `\n${error.output}` : ''}`
  const isFull =
    error?.code === 'ENOSPC' || /ENOSPC|no space left on device|disk full|errno: 28\b|error 28\b/i.test(text)
  return isFull
    ? 'The disk is full: there is no room for the studio’s data. Nothing that was kept is lost. ' +
        'Make room, and start again.'
    : text
}
