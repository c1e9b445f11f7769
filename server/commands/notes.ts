import { Type } from '@sinclair/typebox'
import { HAND_POSITIONS } from '../../core/classes/plan/blockWords'
import { FELT, feltNamed, RED_FLAG, redFlagNamed } from '../../core/classes/watch/comfort'
import type { NoteChange, NoteDetails } from '../../core/classes/watch/classState'
import { signNamed } from '../../core/classes/watch/signs'
import * as notes from '../classes/notes'
import * as watch from '../classes/watch'
import { can } from '../platform/accounts/can'
import { giveConsent } from '../riders/consent'
import { confirmNumbersOf } from '../setups/confirmation'
import type { Scope } from '../platform/accounts/scope'
import type { Database } from '../platform/db/connection'
import { defineCommand, idSchema, SAVED, refused, type CommandContext, type CommandOutcome } from './defineCommand'
import { announce, anyDetail, anyText, memberOf, onFloor } from './onFloor'

/*
 * What an instructor writes while a class rides. Devices send it from their outbox, days later and from earlier
 * versions: unknown fields are ignored, and a detail that cannot be read is left out.
 */

const MAX_CONCERNED = 200
const MAX_CUE_LENGTH = 200
const SIDES = ['left', 'right', 'both'] as const

const written = (outcome: 'kept' | 'idTaken'): CommandOutcome =>
  outcome === 'kept' ? SAVED : refused({ code: 'entryTaken' })

/** Records a sign, a complaint or a red flag of a rider. */
export const addNote = defineCommand({
  name: 'notes.addNote',
  permission: 'writeNotes',
  offline: 'addNote',
  ownsId: true,
  schema: Type.Object({
    ...onFloor,
    sign: anyDetail,
    side: anyDetail,
    region: anyDetail,
    score: anyDetail,
    minute: anyDetail,
    strength: anyDetail,
    posture: anyDetail,
    hands: anyDetail,
    cued: anyDetail,
    /** The member agrees to notes with this one. */
    agrees: anyDetail,
  }),
  run: async (tx, scope, entry, context) => {
    const rider = await memberOf(tx, scope, entry)
    if ('outcome' in rider) return rider
    const agrees = rider.agrees || (entry.agrees === true && (await agreesNow(tx, scope, rider.memberId!, context)))
    if (!agrees) return refused({ code: 'needsConsent' })
    const { bikeId, classId, strength, posture } = entry
    const region = regionOf(entry.sign, entry.region)
    const side = SIDES.find((one) => one === entry.side)
    if (!region || !side) return refused({ code: 'unknownSign' })
    const sign = entry.sign as string
    const score = sign === FELT ? integerBetween(entry.score, 0, 10) : null
    if (sign === FELT && score === null) return refused({ code: 'unknownSign' })
    const minute = integerBetween(entry.minute, -600, 600)
    const hands = HAND_POSITIONS.find((one) => one === entry.hands)
    const noted = { memberId: rider.memberId!, bikeId, region, sign, side, cued: entry.cued === true } as const
    const details: NoteDetails = {
      ...(classId !== undefined && { classId }),
      ...((strength === 'slight' || strength === 'clear') && { strength }),
      ...(score !== null && { score }),
      ...(minute !== null && { minute }),
      ...((posture === 'seated' || posture === 'standing') && { posture }),
      ...(hands && { hands }),
    }
    const none = { classId: null, strength: null, score: null, minute: null, posture: null, hands: null }
    const row = { id: context.id, ...noted, ...none, ...details, createdAt: context.observedAt }
    const { outcome } = await notes.addNote(tx, scope, row)
    if (outcome === 'kept') announce(context, classId, { op: 'addNote', ...noted, ...details })
    return written(outcome)
  },
})

const agreesNow = (tx: Database, scope: Scope, memberId: string, { observedAt }: CommandContext) =>
  giveConsent(tx, scope, memberId, 'spoken', observedAt)

/** The region of a note, or null where there is no such sign, complaint or flag. */
function regionOf(sign: unknown, region: unknown): string | null {
  if (sign === FELT) return typeof region === 'string' && feltNamed(region) ? region : null
  if (sign === RED_FLAG) return typeof region === 'string' && redFlagNamed(region) ? region : null
  return (typeof sign === 'string' && signNamed(sign)?.region) || null
}

/** An integer within a range; null for anything else. */
const integerBetween = (value: unknown, low: number, high: number): number | null =>
  typeof value === 'number' && Number.isInteger(value) && value >= low && value <= high ? value : null

/** Changes how strong a note is, whether a cue was given, and what a second look found. */
export const changeNote = defineCommand({
  name: 'notes.changeNote',
  permission: 'writeNotes',
  offline: 'changeNote',
  schema: Type.Object({ classId: onFloor.classId, noteId: idSchema, change: anyDetail }),
  run: async (tx, scope, entry, context) => {
    const there = await memberOf(tx, scope, { classId: entry.classId })
    if ('outcome' in there) return there
    const change = readNoteChange(entry.change)
    if (!change) return refused({ code: 'malformed' })
    const { classId, noteId } = entry
    await notes.changeNote(tx, scope, noteId, change, context.observedAt)
    announce(context, classId, { op: 'changeNote', classId, noteId, change })
    return SAVED
  },
})

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

/** Withdraws a note. */
export const withdrawNote = defineCommand({
  name: 'notes.withdrawNote',
  permission: 'writeNotes',
  offline: 'withdrawNote',
  schema: Type.Object({ classId: onFloor.classId, noteId: idSchema }),
  run: async (tx, scope, { classId, noteId }, context) => {
    const there = await memberOf(tx, scope, { classId })
    if ('outcome' in there) return there
    await notes.withdrawNote(tx, scope, noteId, context.now)
    announce(context, classId, { op: 'withdrawNote', classId, noteId })
    return SAVED
  },
})

/** Records that a rider was looked at, with or without their numbers. */
export const addLook = defineCommand({
  name: 'notes.addLook',
  permission: 'writeNotes',
  offline: 'addLook',
  ownsId: true,
  schema: Type.Object({ ...onFloor, numbers: anyDetail }),
  run: async (tx, scope, entry, context) => {
    const rider = await memberOf(tx, scope, entry)
    if ('outcome' in rider) return rider
    const { classId, bikeId } = entry
    if (classId === undefined) return refused({ code: 'noNote' })
    const look = { classId, memberId: rider.memberId!, bikeId, numbers: entry.numbers === true }
    const { outcome } = await watch.addLook(tx, scope, { id: context.id, ...look, createdAt: context.observedAt })
    // A look in class by somebody who may confirm a trainee's numbers confirms them.
    if (look.numbers && can(scope, 'confirmNumbers'))
      await confirmNumbersOf(tx, scope, look.memberId, context.observedAt)
    if (outcome === 'kept') announce(context, classId, { op: 'addLook', ...look })
    return written(outcome)
  },
})

/** Records a cue to the whole room. */
export const addRoomCue = defineCommand({
  name: 'notes.addRoomCue',
  permission: 'writeNotes',
  offline: 'addRoomCue',
  ownsId: true,
  schema: Type.Object({
    classId: anyText,
    sign: anyDetail,
    cue: Type.String({ maxLength: MAX_CUE_LENGTH }),
    concerned: Type.Array(idSchema, { maxItems: MAX_CONCERNED }),
  }),
  run: async (tx, scope, { classId, sign, cue, concerned }, context) => {
    const there = await memberOf(tx, scope, { classId })
    if ('outcome' in there) return there
    if (typeof sign !== 'string' || !signNamed(sign)) return refused({ code: 'unknownSign' })
    const values = { classId, sign, cue, concerned }
    const { outcome } = await watch.addRoomCue(tx, scope, { id: context.id, ...values, createdAt: context.observedAt })
    if (outcome === 'kept') announce(context, classId, { op: 'addRoomCue', ...values })
    return written(outcome)
  },
})
