import { statfsSync } from 'node:fs'

/** With less than this free, bytes, nothing is written any more: the database needs some to put itself in order. */
export const LEAST_FREE = 48_000_000
/** It is looked at so often at most, ms. */
const EVERY_MS = 1000

/** Tells whether the disk that holds a folder is full, from `statfs` (or another way to ask for free bytes). */
export function diskWatch(folder, { free = freeBytes, now = Date.now } = {}) {
  let [askedAt, full] = [-Infinity, false]
  return () => {
    if (now() - askedAt < EVERY_MS) return full
    askedAt = now()
    const bytes = folder ? free(folder) : null
    full = bytes !== null && bytes < LEAST_FREE
    return full
  }
}

/** Free bytes of the disk that holds a folder; null where that cannot be told. */
export function freeBytes(folder) {
  try {
    const { bavail, bsize } = statfsSync(folder)
    return bavail * bsize
  } catch {
    return null
  }
}

/** What went wrong at a start in words, where it is a full disk; else as it was said. */
export function describeFault(error) {
  const said = `${error?.message ?? error}${error?.output ? `\n${error.output}` : ''}`
  const isFull =
    error?.code === 'ENOSPC' || /ENOSPC|no space left on device|disk full|errno: 28\b|error 28\b/i.test(said)
  return isFull
    ? 'The disk is full: there is no room for the studio’s data. Nothing that was kept is lost. ' +
        'Make room, and start again.'
    : said
}
