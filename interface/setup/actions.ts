'use server'
import type { Evidence } from '@/core/evidence/evidence'
import { requireUser } from '@/server/accounts/session'
import { bikeById } from '@/server/bikes/bikes'
import { database, withTransaction } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { memberById } from '@/server/members/members'
import { checkedRow } from '@/server/outbox/deliver'
import { appendEvidence, MOST_ROWS, setupById, startSetup as insertSetup } from '@/server/setups/setups'

/** Starts a set-up of a member on a bike, or takes up the one left open there; the set-up's id, or null for an unknown member, an unknown bike or one with an open fault. */
export async function startSetup(memberId: string, bikeId: string): Promise<string | null> {
  const person = await requireUser()
  const db = database()
  const bike = isId(bikeId) ? await bikeById(db, bikeId) : null
  if (!isId(memberId) || !bike || bike.openFaults > 0 || !(await memberById(db, memberId))) return null
  return insertSetup(db, { id: crypto.randomUUID(), memberId, bike, at: new Date(), by: person.id })
}

/**
 * Starts a new set-up of the same rider on the same bike from rows of one that somebody else saved meanwhile; the new
 * set-up's id, or null where the bike is out of use by now or the rows do not fit it any more. The row ids are the
 * caller's, new ones: sent again it is the same set-up.
 */
export async function continueSetup(
  setupId: string,
  rows: readonly Readonly<{ id: string; row: Evidence }>[],
): Promise<string | null> {
  const person = await requireUser()
  const db = database()
  const setup = isId(setupId) ? await setupById(db, setupId) : null
  const bike = setup && (await bikeById(db, setup.bikeId))
  if (
    !setup ||
    !bike ||
    bike.openFaults > 0 ||
    !Array.isArray(rows) ||
    rows.length > MOST_ROWS ||
    !rows.every((r) => isId(r?.id))
  )
    return null
  const at = new Date()
  return withTransaction(db, async (tx) => {
    const id = await insertSetup(tx, { id: crypto.randomUUID(), memberId: setup.memberId, bike, at, by: person.id })
    const begun = await setupById(tx, id)
    for (const sent of rows) {
      const checked = checkedRow(begun!, sent.row)
      if ('row' in checked) await appendEvidence(tx, id, { id: sent.id, row: checked.row }, at, person.id)
    }
    return id
  })
}
