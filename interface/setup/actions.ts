'use server'
import { axesOf } from '@/core/bike/bike'
import type { Marks } from '@/core/conventions'
import type { Evidence } from '@/core/evidence/evidence'
import { marksFaults, spelled } from '@/core/operations/bikeFaults'
import { evidenceFaults } from '@/core/operations/operations'
import { signedIn } from '@/server/accounts/session'
import { bikeById } from '@/server/bikes/bikes'
import { database, together } from '@/server/db/connection'
import { memberById } from '@/server/members/members'
import { appendRow, finishSetup, openSetup, rowsOf, setupById, startSetup, withdrawRow } from '@/server/setups/setups'
import { isId } from '../shared/ids'

export type Kept = Readonly<{ outcome: 'kept' }> | Readonly<{ outcome: 'refused'; say: string }>

const KEPT: Kept = { outcome: 'kept' }
const refused = (say: string): Kept => ({ outcome: 'refused', say })

/** Starts a set-up of a member on a bike, or takes up the one left open there; the set-up's id, or null for an unknown member, an unknown bike or one with an open fault. */
export async function begin(memberId: string, bikeId: string): Promise<string | null> {
  const person = await signedIn()
  const db = database()
  const bike = isId(bikeId) ? await bikeById(db, bikeId) : null
  if (!isId(memberId) || !bike || bike.openFaults > 0 || !(await memberById(db, memberId))) return null
  const open = await openSetup(db, memberId, bikeId)
  if (open) return open.id
  const id = crypto.randomUUID()
  await startSetup(db, { id, memberId, bike, at: new Date(), by: person.id })
  return id
}

/** Keeps one row of evidence. Sent again under the same id it changes nothing. */
export async function keep(setupId: string, id: string, row: Evidence): Promise<Kept> {
  const person = await signedIn()
  if (!isId(setupId) || !isId(id)) return refused('the request was cut short')
  const faults = evidenceFaults(row)
  if (faults.length > 0) return refused(faults.map((f) => `${f.pointer.slice(1)} ${f.reason}`).join('; '))
  const db = database()
  const setup = await setupById(db, setupId)
  if (!setup) return refused('this set-up does not exist')
  if (setup.finishedAt) return refused('these numbers were saved already; start a new set-up to change them')
  const marks = marksFaults(setup.type, row.at, '')
  if (marks.length > 0) return refused(marks.map((f) => f.reason).join('; '))
  await appendRow(db, setupId, { id, row: row.at ? { ...row, at: spelled(setup.type, row.at) } : row }, new Date(), person.id)
  return KEPT
}

/** Withdraws a row; it stays on record as withdrawn. */
export async function withdraw(setupId: string, id: string): Promise<Kept> {
  const person = await signedIn()
  if (!isId(setupId) || !isId(id)) return refused('the request was cut short')
  const db = database()
  const setup = await setupById(db, setupId)
  if (!setup) return refused('this set-up does not exist')
  if (setup.finishedAt) return refused('these numbers were saved already')
  await withdrawRow(db, setupId, id, new Date(), person.id)
  return KEPT
}

/** Saves the numbers: a last row that sets them, and the set-up is finished. Sent again it changes nothing. */
export async function save(setupId: string, id: string, marks: Marks): Promise<Kept> {
  const person = await signedIn()
  if (!isId(setupId) || !isId(id)) return refused('the request was cut short')
  const db = database()
  const setup = await setupById(db, setupId)
  if (!setup) return refused('this set-up does not exist')
  if (setup.finishedAt) return KEPT
  const row: Evidence = { kind: 'set', at: marks }
  const faults = [...evidenceFaults(row), ...marksFaults(setup.type, marks, '')]
  if (faults.length > 0) return refused(faults.map((f) => f.reason).join('; '))
  const open = axesOf(setup.type).filter((axis) => marks[axis] === undefined)
  if (open.length > 0) return refused('not every scale has its mark yet')
  const at = new Date()
  await together(db, async (tx) => {
    await appendRow(tx, setupId, { id, row: { ...row, at: spelled(setup.type, marks) } }, at, person.id)
    await finishSetup(tx, setupId, id, at, person.id)
  })
  return KEPT
}

/** How many rows a set-up holds; lets a page see whether another instructor went on with it. */
export async function rowsNow(setupId: string): Promise<Readonly<{ id: string; row: Evidence }>[]> {
  await signedIn()
  return isId(setupId) ? rowsOf(database(), setupId) : []
}
