import { axesOf } from '../../core/bike/bike'
import type { Evidence } from '../../core/evidence/evidence'
import { canonicalMarks, marksFaults } from '../../core/operations/bikeFaults'
import { evidenceFaults } from '../../core/operations/operations'
import { signNamed } from '../../core/watch/signs'
import type { RefusalCode } from '../../core/words/outbox'
import type { SignedIn } from '../accounts/session'
import { bikeById } from '../bikes/bikes'
import { withTransaction, type Database } from '../db/connection'
import { isId } from '../ids'
import { memberById } from '../members/members'
import { addNote, withdrawNote } from '../notes/notes'
import { appendEvidence, finishSetup, setupById, withdrawEvidence, type Recorded, type Setup } from '../setups/setups'
import { dayAndTimeSaid } from '../studio/day'
import { getStudio } from '../studio/studio'
import type { OutboxEntry } from './entry'

export type Delivered = Readonly<{ outcome: 'kept' }> | (Readonly<{ outcome: 'refused' }> & RefusalCode)

const KEPT: Delivered = { outcome: 'kept' }
const refused = (why: RefusalCode): Delivered => ({ outcome: 'refused', ...why })

/** A device's clock may be wrong, and a device may lie in a bag for days: times are held within this span before now. */
const LONGEST_AWAY_MS = 7 * 86_400_000

/**
 * Takes one entry of a device's outbox. Sent again it changes nothing. A refusal is a value that says why; a throw is a
 * fault of database or program, after which the entry may be sent again.
 */
export async function deliver(db: Database, person: SignedIn, entry: OutboxEntry, now: Date): Promise<Delivered> {
  if (!isId(entry.id)) return refused({ code: 'malformed' })
  switch (entry.op) {
    case 'appendEvidence':
      return onSetup(db, entry.setupId, (setup) => appendRow(db, setup, entry.id, entry.row, now, person.id))
    case 'withdrawEvidence':
      if (!isId(entry.rowId)) return refused({ code: 'malformed' })
      return onSetup(db, entry.setupId, (setup) =>
        recorded(
          db,
          setup,
          withTransaction(db, (tx) => withdrawEvidence(tx, setup.id, entry.rowId, now, person.id)),
        ),
      )
    case 'finishSetup':
      return onSetup(db, entry.setupId, (setup) => saveNumbers(db, setup, entry, now, person.id))
    case 'addNote':
      return keepNote(db, entry, now, person.id)
    case 'withdrawNote':
      if (!isId(entry.noteId)) return refused({ code: 'malformed' })
      await withdrawNote(db, entry.noteId, now)
      return KEPT
    default:
      return refused({ code: 'malformed' })
  }
}

async function onSetup(db: Database, setupId: string, work: (setup: Setup) => Promise<Delivered>): Promise<Delivered> {
  const setup = isId(setupId) ? await setupById(db, setupId) : null
  return setup ? work(setup) : refused({ code: 'noSetup' })
}

/** A row held to the wire format and to the bike's own marks, its labels canonicalMarks as the scale spells them. */
export function checkedRow(
  { type }: Setup,
  row: Evidence,
): Readonly<{ row: Evidence }> | Readonly<{ reasons: readonly string[] }> {
  const faults = evidenceFaults(row)
  if (faults.length > 0) return { reasons: faults.slice(0, 5).map((f) => `${f.pointer.slice(1)} ${f.reason}`.trim()) }
  const marks = marksFaults(type, row.at, '')
  if (marks.length > 0) return { reasons: marks.map((f) => f.reason) }
  return { row: row.at ? { ...row, at: canonicalMarks(type, row.at) } : row }
}

async function appendRow(
  db: Database,
  setup: Setup,
  id: string,
  sent: Evidence,
  at: Date,
  by: string,
): Promise<Delivered> {
  const checked = checkedRow(setup, sent)
  if ('reasons' in checked) return refused({ code: 'badRow', reasons: checked.reasons })
  return recorded(
    db,
    setup,
    withTransaction(db, (tx) => appendEvidence(tx, setup.id, { id, row: checked.row }, at, by)),
  )
}

async function saveNumbers(
  db: Database,
  setup: Setup,
  { id, marks }: OutboxEntry & { op: 'finishSetup' },
  at: Date,
  by: string,
): Promise<Delivered> {
  const checked = checkedRow(setup, { kind: 'set', at: marks ?? {} })
  if ('reasons' in checked) return refused({ code: 'badRow', reasons: checked.reasons })
  const wanted = checked.row.at ?? {}
  if (axesOf(setup.type).some((axis) => wanted[axis] === undefined)) return refused({ code: 'incomplete' })
  return recorded(
    db,
    setup,
    withTransaction(db, (tx) => finishSetup(tx, setup.id, { id, marks: wanted }, at, by)),
  )
}

async function recorded(db: Database, setup: Setup, work: Promise<Recorded>): Promise<Delivered> {
  const done = await work
  switch (done.outcome) {
    case 'kept':
      return KEPT
    case 'gone':
      return refused({ code: 'noSetup' })
    case 'finished': {
      const { timeZone } = await getStudio(db)
      return refused({
        code: 'finished',
        by: done.by,
        time: dayAndTimeSaid(done.at, timeZone),
        marks: done.marks,
        bikeType: setup.type,
      })
    }
    default:
      return refused({ code: done.outcome })
  }
}

async function keepNote(
  db: Database,
  entry: OutboxEntry & { op: 'addNote' },
  now: Date,
  by: string,
): Promise<Delivered> {
  const { id, memberId, bikeId, side } = entry
  const sign = typeof entry.sign === 'string' ? signNamed(entry.sign) : undefined
  if (!sign || !['left', 'right', 'both'].includes(side)) return refused({ code: 'unknownSign' })
  if (!isId(memberId) || !isId(bikeId) || !(await memberById(db, memberId)) || !(await bikeById(db, bikeId)))
    return refused({ code: 'noNote' })
  const made = Number.isFinite(entry.madeAtMs) ? entry.madeAtMs : now.getTime()
  const at = new Date(Math.min(now.getTime(), Math.max(now.getTime() - LONGEST_AWAY_MS, made)))
  const { outcome } = await addNote(db, { id, memberId, bikeId, region: sign.region, sign: sign.sign, side, at, by })
  return outcome === 'kept' ? KEPT : refused({ code: 'idTaken' })
}
