import { createHash, timingSafeEqual } from 'node:crypto'
import {
  checkAccount,
  createAccount,
  hasAccounts,
  type AccountIssue,
  type TypedAccount,
} from '../platform/accounts/accounts'
import { studio, user } from '../platform/accounts/tables'
import { withTransaction, type Database } from '../platform/db/connection'
import { studioFactsIssue, type StudioFacts, type StudioFactsIssue } from './studioFacts'

/**
 * `begun`: somebody has an account already; `wrongCode`: not the code printed at the start, or none was; an issue of
 * the invalid field otherwise. Only `kept` has written anything.
 */
export type FirstStartResult = 'kept' | 'begun' | 'wrongCode' | StudioFactsIssue | AccountIssue

/** Fingerprint of a first start's code, as the start hands it to the server. */
export const codeFingerprint = (code: string): string =>
  createHash('sha256').update(code.trim().toUpperCase().replaceAll('-', '')).digest('hex')

/** Whether a code is the one printed at the start of this server; false where none was. */
export function isStartCode(code: string): boolean {
  const expected = process.env.FIRST_START_CODE_HASH
  if (!expected) return false
  return timingSafeEqual(Buffer.from(codeFingerprint(code)), Buffer.from(expected))
}

/** Makes the studio of a new installation and its first manager. */
export async function beginStudio(
  db: Database,
  { code, facts, manager }: Readonly<{ code: string; facts: StudioFacts; manager: TypedAccount }>,
  now: Date,
): Promise<FirstStartResult> {
  if (await hasAccounts(db)) return 'begun'
  if (!isStartCode(code)) return 'wrongCode'
  const issue = studioFactsIssue(facts)
  if (issue) return issue
  const checked = await checkAccount(db, manager, facts.name)
  if (typeof checked === 'string') return checked
  return withTransaction(db, async (tx) => {
    // Of two at once the gap's lock lets one through; the other is tried again and finds an account.
    const [first] = await tx.select({ id: user.id }).from(user).limit(1).for('update')
    if (first) return 'begun'
    const studioId = crypto.randomUUID()
    await tx.insert(studio).values({ id: studioId, ...facts, school: {} })
    await createAccount(tx, studioId, { ...checked, id: crypto.randomUUID(), role: 'manager' }, now)
    return 'kept'
  })
}
