import { axesOf } from '../../core/bike/bike'
import type { Refusal } from '../../core/messages/outbox'
import { PURPOSES } from '../../core/register/entry'
import { signNamed } from '../../core/watch/signs'
import { can, type Permission } from '../accounts/can'
import type { Scope } from '../accounts/scope'
import { findBike } from '../bikes/bikes'
import { addNote, withdrawNote } from '../classes/notes'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { isId } from '../ids'
import { findMember } from '../members/members'
import { appendEvidence, finishSetup, withdrawEvidence, type RecordResult } from '../setups/evidence'
import { findSetup, type Setup } from '../setups/setups'
import { validateRow } from '../setups/validateRow'
import { formatDayAndTime } from '../studio/day'
import { getStudio } from '../studio/studio'
import type { EntryOf, OutboxEntry, OutboxOp } from './entry'

export type DeliveryResult = Readonly<{ outcome: 'kept' }> | (Readonly<{ outcome: 'refused' }> & Refusal)

const KEPT: DeliveryResult = { outcome: 'kept' }
const refused = (why: Refusal): DeliveryResult => ({ outcome: 'refused', ...why })

const PERMISSION: Readonly<Record<OutboxOp, Permission>> = {
  appendEvidence: 'setUpRiders',
  withdrawEvidence: 'setUpRiders',
  finishSetup: 'setUpRiders',
  addNote: 'writeNotes',
  withdrawNote: 'writeNotes',
}

/**
 * A device's clock may be wrong, and a device may lie in a bag for days: times are held within this span before now.
 */
const LONGEST_AWAY_MS = 7 * 86_400_000

/**
 * Takes one entry of a device's outbox. Sent again it changes nothing. A refusal is a value that says why; a throw is a
 * fault of database or program, after which the entry may be sent again.
 */
export async function deliver(db: Database, scope: Scope, entry: OutboxEntry, now: Date): Promise<DeliveryResult> {
  if (!isId(entry.id) || !Object.hasOwn(PERMISSION, entry.op)) return refused({ code: 'malformed' })
  if (!can(scope, PERMISSION[entry.op])) return refused({ code: 'notAllowed' })
  switch (entry.op) {
    case 'appendEvidence':
      return appendRow(db, scope, entry, now)
    case 'withdrawEvidence': {
      const { setupId, rowId } = entry
      if (!isId(rowId)) return refused({ code: 'malformed' })
      return onSetup(db, scope, setupId, () => (tx) => withdrawEvidence(tx, scope, setupId, rowId, now))
    }
    case 'finishSetup':
      return deliverNumbers(db, scope, entry, now)
    case 'addNote':
      return deliverNote(db, scope, entry, now)
    case 'withdrawNote':
      if (!isId(entry.noteId)) return refused({ code: 'malformed' })
      await withdrawNote(db, scope, entry.noteId, now)
      return KEPT
  }
}

type Write = (tx: DbExecutor) => Promise<RecordResult>

/**
 * Writes to a set-up of the studio in one transaction, unless `prepare` says why not; what came of it, as an answer.
 */
async function onSetup(
  db: Database,
  scope: Scope,
  setupId: string,
  prepare: (setup: Setup) => Refusal | Write,
): Promise<DeliveryResult> {
  const setup = isId(setupId) ? await findSetup(db, scope, setupId) : null
  if (!setup) return refused({ code: 'noSetup' })
  const write = prepare(setup)
  if (typeof write !== 'function') return refused(write)
  const done = await withTransaction(db, write)
  switch (done.outcome) {
    case 'kept':
      return KEPT
    case 'gone':
      return refused({ code: 'noSetup' })
    case 'finished': {
      const { timeZone } = await getStudio(db, scope)
      const time = formatDayAndTime(done.finishedAt, timeZone)
      return refused({ code: 'finished', by: done.finishedBy, time, marks: done.marks, bikeType: setup.type })
    }
    default:
      return refused({ code: done.outcome })
  }
}

function appendRow(
  db: Database,
  scope: Scope,
  { id, setupId, row }: EntryOf<'appendEvidence'>,
  now: Date,
): Promise<DeliveryResult> {
  return onSetup(db, scope, setupId, ({ type }) => {
    const checked = validateRow(type, row)
    if ('reasons' in checked) return { code: 'badRow', reasons: checked.reasons }
    return (tx) => appendEvidence(tx, scope, setupId, { id, row: checked.row }, now)
  })
}

function deliverNumbers(
  db: Database,
  scope: Scope,
  { id, setupId, marks, purpose = 'usual' }: EntryOf<'finishSetup'>,
  now: Date,
): Promise<DeliveryResult> {
  return onSetup(db, scope, setupId, ({ type }) => {
    if (!PURPOSES.includes(purpose)) return { code: 'malformed' }
    const checked = validateRow(type, { kind: 'set', at: marks ?? {} })
    if ('reasons' in checked) return { code: 'badRow', reasons: checked.reasons }
    const wanted = checked.row.at ?? {}
    if (axesOf(type).some((axis) => wanted[axis] === undefined)) return { code: 'incomplete' }
    return (tx) => finishSetup(tx, scope, setupId, { id, marks: wanted, purpose }, now)
  })
}

async function deliverNote(db: Database, scope: Scope, entry: EntryOf<'addNote'>, now: Date): Promise<DeliveryResult> {
  const { id, memberId, bikeId, side } = entry
  const sign = typeof entry.sign === 'string' ? signNamed(entry.sign) : undefined
  if (!sign || !['left', 'right', 'both'].includes(side)) return refused({ code: 'unknownSign' })
  const known =
    isId(memberId) && isId(bikeId) && (await findMember(db, scope, memberId)) && (await findBike(db, scope, bikeId))
  if (!known) return refused({ code: 'noNote' })
  const madeMs = Number.isFinite(entry.madeAtMs) ? entry.madeAtMs : now.getTime()
  const createdAt = new Date(Math.min(now.getTime(), Math.max(now.getTime() - LONGEST_AWAY_MS, madeMs)))
  const { region } = sign
  const { outcome } = await addNote(db, scope, { id, memberId, bikeId, region, sign: sign.sign, side, createdAt })
  return outcome === 'kept' ? KEPT : refused({ code: 'idTaken' })
}
