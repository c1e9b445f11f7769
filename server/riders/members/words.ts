import { and, asc, eq, like, sql, type SQL } from 'drizzle-orm'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { memberWord } from '../tables'

/** Words of a name as they are searched by: what spaces, hyphens and apostrophes part. */
export const wordsOf = (name: string): string[] => [...new Set(name.split(/[\s\-'’]+/u).filter(Boolean))]

type Named = Readonly<{ id: string; name: string }>

/** The rows that make a member found by each word of their name. */
export const wordRows = (studioId: string, { id, name }: Named) =>
  wordsOf(name).map((word) => ({ studioId, word, name, memberId: id }))

/** Makes members found by their names, within the caller's transaction; earlier words of theirs are left. */
export async function addWords(tx: DbExecutor, { studioId }: Scope, members: readonly Named[]): Promise<void> {
  const rows = members.flatMap((one) => wordRows(studioId, one))
  if (rows.length === 0) return
  // Words that differ in accents or capitals alone are one to the database.
  await tx
    .insert(memberWord)
    .values(rows)
    .onDuplicateKeyUpdate({ set: { memberId: sql`values(${memberWord.memberId})` } })
}

/** Replaces the words a member is found by. */
export async function replaceWords(tx: DbExecutor, scope: Scope, one: Named): Promise<void> {
  await tx.delete(memberWord).where(and(eq(memberWord.memberId, one.id), eq(memberWord.studioId, scope.studioId)))
  await addWords(tx, scope, [one])
}

/** Words typed beyond these narrow nothing more. */
const MAX_WORDS = 6

/**
 * The first members with a word that begins as typed, by that word and then by name; further words typed begin words of
 * the same name. Reads the index up to the last one found.
 */
export async function findByWords(db: DbExecutor, scope: Scope, typed: string, limit: number): Promise<Named[]> {
  const [first, ...rest] = wordsOf(typed).slice(0, MAX_WORDS)
  if (!first) return []
  const found = await db
    .select({ id: memberWord.memberId, name: memberWord.name })
    .from(memberWord)
    .where(
      and(eq(memberWord.studioId, scope.studioId), like(memberWord.word, `${escaped(first)}%`), ...rest.map(alsoHas)),
    )
    .orderBy(asc(memberWord.studioId), asc(memberWord.word), asc(memberWord.name), asc(memberWord.memberId))
    // A member whose name has two such words is there twice.
    .limit(2 * limit)
  return [...new Map(found.map((one) => [one.id, one])).values()].slice(0, limit)
}

const escaped = (word: string): string => word.replaceAll(/[\\%_]/g, '\\$&')

const alsoHas = (word: string): SQL =>
  sql`EXISTS (SELECT 1 FROM ${memberWord} other WHERE other.member_id = ${memberWord.memberId}
    AND other.studio_id = ${memberWord.studioId} AND other.word LIKE ${`${escaped(word)}%`})`
