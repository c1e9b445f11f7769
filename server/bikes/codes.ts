import { randomInt } from 'node:crypto'
import { and, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { bike, bikeCode } from './tables'

/** Without letters and digits that are taken for one another in print. */
const ALPHABET = '23456789abcdefghjkmnpqrstuvwxyz'
const LENGTH = 10

const newCode = (): string => Array.from({ length: LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]).join('')

/** A code as somebody types it: capitals, spaces and hyphens make no difference. Null for what is none. */
export function normalizeCode(typed: string): string | null {
  const code = typed.toLowerCase().replace(/[\s-]/g, '')
  return code.length === LENGTH && [...code].every((char) => ALPHABET.includes(char)) ? code : null
}

/** A code as it is printed, easier to type: "abcde fghjk". */
export const printedCode = (code: string): string => `${code.slice(0, LENGTH / 2)} ${code.slice(LENGTH / 2)}`

/** The machine behind a code, nobody signed in. */
export type CodeOwner = Readonly<{ studioId: string; bikeId: string }>

/** What a code is: in force, changed for another, or of a machine that left the studio; null where there is none. */
export type FoundCode = CodeOwner & Readonly<{ state: 'inForce' | 'changed' | 'retired' }>

export async function findCode(db: DbExecutor, code: string): Promise<FoundCode | null> {
  const [found] = await db
    .select({
      studioId: bikeCode.studioId,
      bikeId: bikeCode.bikeId,
      endedAt: bikeCode.endedAt,
      retiredAt: bike.retiredAt,
    })
    .from(bikeCode)
    .innerJoin(bike, eq(bike.id, bikeCode.bikeId))
    .where(eq(bikeCode.code, code))
  if (!found) return null
  const { studioId, bikeId, endedAt, retiredAt } = found
  return { studioId, bikeId, state: endedAt ? 'changed' : retiredAt ? 'retired' : 'inForce' }
}

/** The codes in force of these machines of the studio, by machine; made for those that have none. */
export async function codesOfBikes(
  db: Database,
  { studioId }: Pick<Scope, 'studioId'>,
  bikeIds: readonly string[],
  now: Date,
): Promise<Map<string, string>> {
  if (bikeIds.length === 0) return new Map()
  const found = await codesInForce(db, studioId, bikeIds)
  if (found.size === new Set(bikeIds).size) return found
  return withTransaction(db, async (tx) => {
    // Two who print at once make one code a machine.
    const own = await tx
      .select({ id: bike.id })
      .from(bike)
      .where(and(inArray(bike.id, [...bikeIds]), eq(bike.studioId, studioId)))
      .for('update')
    const there = await codesInForce(tx, studioId, bikeIds)
    const without = own.filter(({ id }) => !there.has(id))
    const made = without.map(({ id }) => codeRow(studioId, id, now))
    if (made.length > 0) await tx.insert(bikeCode).values(made)
    return new Map([...there, ...made.map(({ bikeId, code }): [string, string] => [bikeId, code])])
  })
}

const codeRow = (studioId: string, bikeId: string, now: Date) => ({
  id: crypto.randomUUID(),
  studioId,
  bikeId,
  code: newCode(),
  createdAt: now,
})

async function codesInForce(
  db: DbExecutor,
  studioId: string,
  bikeIds: readonly string[],
): Promise<Map<string, string>> {
  const rows = await db
    .select({ bikeId: bikeCode.bikeId, code: bikeCode.code })
    .from(bikeCode)
    .where(and(eq(bikeCode.studioId, studioId), inArray(bikeCode.bikeId, [...bikeIds]), isNull(bikeCode.endedAt)))
    .orderBy(desc(bikeCode.createdAt))
  return new Map(rows.map(({ bikeId, code }) => [bikeId, code]))
}

/** Gives a machine another code: the one on it now opens nothing any more. False where the studio has no such bike. */
export async function changeCode(
  tx: DbExecutor,
  { studioId }: Pick<Scope, 'studioId'>,
  bikeId: string,
  now: Date,
): Promise<boolean> {
  const [own] = await tx
    .select({ id: bike.id })
    .from(bike)
    .where(and(eq(bike.id, bikeId), eq(bike.studioId, studioId)))
    .for('update')
  if (!own) return false
  await tx
    .update(bikeCode)
    .set({ endedAt: now })
    .where(and(eq(bikeCode.bikeId, bikeId), isNull(bikeCode.endedAt)))
  await tx.insert(bikeCode).values(codeRow(studioId, bikeId, now))
  return true
}
