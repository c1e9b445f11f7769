import { closeSync, existsSync, fsyncSync, openSync, readFileSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import type { Database } from '../platform/db/connection'
import { listErasures, replayErasures, type Erased } from './eraseMember'

/** Lines of `studio member`: outside the database, so that a restore of an older one cannot lose them. */
const FILE = 'erased-members'
const LINE = /^[0-9a-z-]{1,36} [0-9a-z-]{1,36}$/

/** Adds erasures to the file of the data folder; without a folder, as in a bench, nothing. */
export function rememberErasures(folder: string | undefined, erased: readonly Erased[]): void {
  if (!folder || erased.length === 0) return
  const file = openSync(join(folder, FILE), 'a', 0o600)
  try {
    writeSync(file, erased.map(({ studioId, memberId }) => `${studioId} ${memberId}\n`).join(''))
    fsyncSync(file)
  } finally {
    closeSync(file)
  }
}

/** The erasures of the file; a last line that a crash cut short is left out. */
export function rememberedErasures(folder: string | undefined): Erased[] {
  const file = folder && join(folder, FILE)
  if (!file || !existsSync(/* turbopackIgnore: true */ file)) return []
  const lines = readFileSync(/* turbopackIgnore: true */ file, 'utf8').split('\n')
  return lines
    .filter((line) => LINE.test(line))
    .map((line) => {
      const [studioId, memberId] = line.split(' ')
      return { studioId, memberId }
    })
}

/**
 * At the start: erases again whom a restored database brought back, and adds erasures of the database that the file
 * lacks. Resolves with the number of members erased again.
 */
export async function settleErasures(db: Database, folder: string | undefined, now: Date): Promise<number> {
  const remembered = rememberedErasures(folder)
  const count = await replayErasures(db, remembered, now)
  const keys = new Set(remembered.map(({ studioId, memberId }) => `${studioId} ${memberId}`))
  const missing = (await listErasures(db)).filter(({ studioId, memberId }) => !keys.has(`${studioId} ${memberId}`))
  rememberErasures(folder, missing)
  return count
}
