import { axesOf } from '../../core/bikes/bike/bike'
import { formatLabel } from '../../core/messages/words/labels'
import { formatAgo, axisTitle } from '../../core/messages/words/phrases'
import { CERTAINTY_WORD, PURPOSE_NAME } from '../../core/messages/setups/register'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { findByWords } from '../riders/members/words'
import { currentEntries } from './register'

/** A member as the finder shows one: every set of numbers with which is which. */
export type FoundMember = Readonly<{
  id: string
  name: string
  sets: readonly Readonly<{
    id: string
    where: string
    numbers: readonly Readonly<{ title: string; text: string }>[]
    sure: string
  }>[]
}>

/** So many are shown: a letter more finds the rest. */
const MAX_FOUND = 8
const DAY_MS = 86_400_000

/** The first members by a word of their name, each with their numbers. */
export async function findWithNumbers(
  db: DbExecutor,
  scope: Scope,
  typed: string,
  now = new Date(),
): Promise<FoundMember[]> {
  const found = await findByWords(db, scope, typed, MAX_FOUND)
  const entries = await currentEntries(
    db,
    scope,
    found.map(({ id }) => id),
  )
  return found.map(({ id, name }) => ({
    id,
    name,
    sets: entries
      .filter(({ memberId }) => memberId === id)
      .map(({ id: entryId, type, purpose, marks, certainty, createdAt }) => ({
        id: entryId,
        where: purpose === 'usual' ? type.name : `${type.name}, ${PURPOSE_NAME[purpose].toLowerCase()}`,
        numbers: axesOf(type).map((axis) => ({
          title: axisTitle(type, axis),
          text: marks[axis] === undefined ? '–' : formatLabel(type, axis, marks[axis]),
        })),
        sure: `${CERTAINTY_WORD[certainty]}, ${formatAgo((now.getTime() - createdAt.getTime()) / DAY_MS)}`,
      })),
  }))
}
