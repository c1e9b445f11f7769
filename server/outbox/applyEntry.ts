import { axesOf } from '../../core/bike/bike'
import type { Refusal } from '../../core/messages/outbox'
import { PURPOSES } from '../../core/register/entry'
import type { ClassEntry, NoteChange } from '../../core/watch/classState'
import { FELT, feltNamed, RED_FLAG, redFlagNamed } from '../../core/watch/comfort'
import { signNamed } from '../../core/watch/signs'
import { can, type Permission } from '../accounts/can'
import type { Scope } from '../accounts/scope'
import { publishClassEvent } from '../classes/live'
import { addNote, changeNote, findOnFloor, withdrawNote } from '../classes/notes'
import { addLook, addRoomCue } from '../classes/watch'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { isId } from '../ids'
import { mergedInto } from '../members/merge'
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
  changeNote: 'writeNotes',
  withdrawNote: 'writeNotes',
  addLook: 'writeNotes',
  addRoomCue: 'writeNotes',
}

/**
 * A device's clock may be wrong, and a device may lie in a bag for days: times are held within this span before now.
 */
const MAX_ENTRY_AGE_MS = 7 * 86_400_000

/**
 * Takes one entry of a device's outbox. Sent again it changes nothing. A refusal is a value that says why; a throw is a
 * fault of database or program, after which the entry may be sent again.
 */
export async function applyEntry(db: Database, scope: Scope, entry: OutboxEntry, now: Date): Promise<DeliveryResult> {
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
    default:
      return deliverToClass(db, scope, entry, now)
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

type MadeClassEntry = EntryOf<ClassEntry['op']>

/** What is noted in class; whoever watches the class is told. */
async function deliverToClass(db: Database, scope: Scope, entry: MadeClassEntry, now: Date): Promise<DeliveryResult> {
  const { classId } = entry
  const rider = 'memberId' in entry ? { memberId: entry.memberId, bikeId: entry.bikeId } : null
  if (classId !== undefined && !isId(classId)) return refused({ code: 'noClass' })
  if (rider && !(isId(rider.memberId) && isId(rider.bikeId))) return refused({ code: 'noNote' })
  const there = await findOnFloor(db, scope, { classId, ...rider })
  if (classId !== undefined && !there.ofClass) return refused({ code: 'noClass' })
  if (rider && !there.rider) {
    // The member may have been merged since the device wrote it down.
    const memberId = await mergedInto(db, scope, rider.memberId)
    if (memberId) return deliverToClass(db, scope, { ...entry, memberId } as MadeClassEntry, now)
    return refused({ code: 'noNote' })
  }
  const { told, ...delivered } = await deliverClassEntry(db, scope, entry, now)
  if (told && classId !== undefined)
    publishClassEvent(classId, { id: entry.id, atMs: observedAt(entry, now).getTime(), entry: told })
  return delivered
}

/** What came of an entry; once it is kept, as it was read: others are told nothing that was not checked. */
type Delivered = DeliveryResult & Readonly<{ told?: ClassEntry }>
const kept = (told: ClassEntry): Delivered => ({ ...KEPT, told })

async function deliverClassEntry(db: Database, scope: Scope, entry: MadeClassEntry, now: Date): Promise<Delivered> {
  switch (entry.op) {
    case 'addNote':
      return deliverNote(db, scope, entry, now)
    case 'changeNote': {
      const { op, classId, noteId } = entry
      const change = readNoteChange(entry.change)
      if (!isId(noteId) || !change) return refused({ code: 'malformed' })
      await changeNote(db, scope, noteId, change, observedAt(entry, now))
      return kept({ op, classId, noteId, change })
    }
    case 'withdrawNote': {
      const { op, classId, noteId } = entry
      if (!isId(noteId)) return refused({ code: 'malformed' })
      await withdrawNote(db, scope, noteId, now)
      return kept({ op, classId, noteId })
    }
    case 'addLook': {
      const { id, op, classId, memberId, bikeId } = entry
      if (classId === undefined) return refused({ code: 'noNote' })
      const look = { classId, memberId, bikeId, numbers: entry.numbers === true }
      const { outcome } = await addLook(db, scope, { id, ...look, createdAt: observedAt(entry, now) })
      return outcome === 'kept' ? kept({ op, ...look }) : refused({ code: 'idTaken' })
    }
    case 'addRoomCue': {
      const { id, op, classId, sign, cue, concerned } = entry
      const listed = Array.isArray(concerned) && concerned.length <= MAX_CONCERNED && concerned.every(isId)
      if (!isId(classId) || !listed || typeof cue !== 'string' || cue.length > MAX_CUE_LENGTH)
        return refused({ code: 'malformed' })
      if (typeof sign !== 'string' || !signNamed(sign)) return refused({ code: 'unknownSign' })
      const said = { classId, sign, cue, concerned }
      const { outcome } = await addRoomCue(db, scope, { id, ...said, createdAt: observedAt(entry, now) })
      return outcome === 'kept' ? kept({ op, ...said }) : refused({ code: 'idTaken' })
    }
  }
}

const MAX_CONCERNED = 200
const MAX_CUE_LENGTH = 200

/** When something was seen: the device's clock, set right by what it said when it sent, within what can be. */
function observedAt({ madeAtMs, sentAtMs }: OutboxEntry, now: Date): Date {
  const skew = Number.isFinite(sentAtMs) ? now.getTime() - sentAtMs! : 0
  const off = Math.abs(skew) > MAX_CLOCK_SKEW_MS ? skew : 0
  const made = Number.isFinite(madeAtMs) ? madeAtMs + off : now.getTime()
  return new Date(Math.min(now.getTime(), Math.max(now.getTime() - MAX_ENTRY_AGE_MS, made)))
}
/** Clocks that differ by less are the same: the network takes its time. */
const MAX_CLOCK_SKEW_MS = 5000

function readNoteChange(change: unknown): NoteChange | null {
  if (typeof change !== 'object' || change === null) return null
  const { strength, cued, held, ...rest } = change as Record<string, unknown>
  if (Object.keys(rest).length > 0) return null
  if (strength !== undefined && strength !== 'slight' && strength !== 'clear') return null
  if (cued !== undefined && typeof cued !== 'boolean') return null
  if (held !== undefined && held !== null && typeof held !== 'boolean') return null
  return {
    ...(strength !== undefined && { strength }),
    ...(cued !== undefined && { cued }),
    ...(held !== undefined && { held }),
  }
}

/** The region of a note, or null where there is no such sign, region or flag. */
function regionOf({ sign, region }: EntryOf<'addNote'>): string | null {
  if (sign === FELT) return typeof region === 'string' && feltNamed(region) ? region : null
  if (sign === RED_FLAG) return typeof region === 'string' && redFlagNamed(region) ? region : null
  return (typeof sign === 'string' && signNamed(sign)?.region) || null
}

/** Whole numbers within a span; anything else is not said. */
const integerBetween = (value: unknown, low: number, high: number): number | null =>
  typeof value === 'number' && Number.isInteger(value) && value >= low && value <= high ? value : null

async function deliverNote(db: Database, scope: Scope, entry: EntryOf<'addNote'>, now: Date): Promise<Delivered> {
  const { id, op, memberId, bikeId, side, sign, classId, strength, posture } = entry
  const region = regionOf(entry)
  if (!region || !['left', 'right', 'both'].includes(side)) return refused({ code: 'unknownSign' })
  const score = sign === FELT ? integerBetween(entry.score, 0, 10) : null
  if (sign === FELT && score === null) return refused({ code: 'unknownSign' })
  const minute = integerBetween(entry.minute, -600, 600)
  const noted = { memberId, bikeId, region, sign, side, cued: entry.cued === true } as const
  const details = {
    ...(classId !== undefined && { classId }),
    ...((strength === 'slight' || strength === 'clear') && { strength }),
    ...(score !== null && { score }),
    ...(minute !== null && { minute }),
    ...((posture === 'seated' || posture === 'standing') && { posture }),
  }
  const none = { classId: null, strength: null, score: null, minute: null, posture: null }
  const { outcome } = await addNote(db, scope, { id, ...noted, ...none, ...details, createdAt: observedAt(entry, now) })
  return outcome === 'kept' ? kept({ op, ...noted, ...details }) : refused({ code: 'idTaken' })
}
