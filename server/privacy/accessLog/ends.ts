import { appendFileSync, existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** An end of a studio's chain at some time. */
export type ChainEnd = Readonly<{ link: number; hash: string }>

/** Lines of `studio link hash time`, outside the database: who truncates the log there cannot truncate them too. */
const FILE = 'access-log-ends'
const LINE = /^([0-9a-z-]{1,36}) (\d+) ([0-9a-f]{64}) \S+$/
const EVERY_MS = 3_600_000
const noted = new Map<string, Readonly<{ atMs: number; link: number }>>()

/** Notes the end of a chain in the data folder, once an hour where it grew; without a folder nothing. */
export function noteEnd(folder: string | undefined, studioId: string, { link, hash }: ChainEnd): void {
  const before = noted.get(studioId)
  const isSame = link === 0 || before?.link === link
  if (!folder || isSame || (before && Date.now() - before.atMs < EVERY_MS)) return
  appendFileSync(join(folder, FILE), `${studioId} ${link} ${hash} ${new Date().toISOString()}\n`, { mode: 0o600 })
  noted.set(studioId, { atMs: Date.now(), link })
}

/** The ends noted of a studio's chain, by link. */
export function notedEnds(folder: string | undefined, studioId: string): ReadonlyMap<number, string> {
  const file = folder && join(folder, FILE)
  if (!file || !existsSync(/* turbopackIgnore: true */ file)) return new Map()
  const found = readFileSync(/* turbopackIgnore: true */ file, 'utf8')
    .split('\n')
    .map((line) => LINE.exec(line))
    .filter((match) => match !== null && match[1] === studioId)
  return new Map(found.map((match) => [Number(match![2]), match![3]]))
}
