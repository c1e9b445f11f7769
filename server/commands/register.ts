import * as confirmation from '../setups/confirmation'
import { Type } from '@sinclair/typebox'
import { AXES, labelSchema } from '../../core/base/conventions'
import { formatTime } from '../../core/messages/words/dates'
import { AGAIN_REASONS, MOVE_REASONS } from '../../core/setups/moves/move'
import { CHANGES } from '../../core/setups/register/entry'
import type { MoveResult } from '../classes/moves'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database } from '../platform/db/connection'
import { closed, oneOf } from '../../core/base/schema'
import type { Source } from '../../core/setups/translate/translate'
import { todayOf } from '../riders/limits'
import { recordPlan } from '../riders/plans'
import { openLink, revokeLinks } from '../riders/memberPage/links'
import { handleMessage as markHandled } from '../riders/memberPage/messages'
import { movable, moveOutlook } from '../pages/setups/movable'
import { saveChange, saveTapeNumbers, saveTranslation, type ProposalResult } from '../setups/proposals'
import { listEntries, restoreEntry } from '../setups/register'
import { getStudio } from '../studio/studio'
import {
  checkedInRun,
  defineCommand,
  defineQuery,
  idSchema,
  SAVED,
  refused,
  type CommandOutcome,
} from './defineCommand'
import { announce, memberOf, onFloor } from './onFloor'
import { moveMark as moveMarkOf, undoMove as undoMoveOf } from './useCases/moveMark'

/** Types or entries in one command; a studio has a handful. */
const MAX_PARTS = 40

const REFUSAL = { gone: 'noSuchNumbers', idTaken: 'idTaken', stale: 'numbersChanged' } as const

function recorded(result: ProposalResult): CommandOutcome {
  if (result.outcome === 'kept') return SAVED
  if (result.outcome === 'refused') return refused({ code: 'noProposal', say: result.say })
  return refused({ code: REFUSAL[result.outcome] })
}

/** Goes back to an earlier set of numbers. */
export const restoreNumbers = defineCommand({
  name: 'register.restoreNumbers',
  permission: 'setUpRiders',
  ownsId: true,
  schema: closed({ entryId: idSchema }),
  run: async (tx, scope, { entryId }, { id, now }) => recorded(await restoreEntry(tx, scope, { id, entryId }, now)),
})

/** Records numbers for another type as well, translated on the server. */
export const saveForType = defineCommand({
  name: 'register.saveForType',
  permission: 'setUpRiders',
  ownsId: true,
  inTransaction: false,
  schema: closed({ entryId: idSchema, lineId: idSchema }),
  run: async (db, scope, { entryId, lineId }, { id, now }) =>
    recorded(await saveTranslation(db, scope, { id, entryId, lineId }, now)),
})

/** Records what a rider's own bike gives on some types. */
export const saveFromTape = defineCommand({
  name: 'register.saveFromTape',
  permission: 'setUpRiders',
  inTransaction: false,
  schema: closed({
    memberId: idSchema,
    from: checkedInRun<Extract<Source, { crankMm: number }>>(),
    parts: Type.Array(closed({ id: idSchema, lineId: idSchema }), { maxItems: MAX_PARTS }),
  }),
  run: async (db, scope, input, { now }) => recorded(await saveTapeNumbers(db, scope, input, now)),
})

/** Records what a change of shoes or bike makes of a rider's numbers. */
export const saveAfterChange = defineCommand({
  name: 'register.saveAfterChange',
  permission: 'setUpRiders',
  inTransaction: false,
  schema: closed({
    memberId: idSchema,
    what: oneOf(CHANGES),
    mm: Type.Number(),
    parts: Type.Array(closed({ id: idSchema, entryId: idSchema }), { maxItems: MAX_PARTS }),
  }),
  run: async (db, scope, input, { now }) => {
    const result = await saveChange(db, scope, input, now)
    const { memberId, what, parts } = input
    // New shoes or cleats are looked at again by their age; the plan has the id of the first part.
    if (result.outcome === 'kept' && (what === 'shoes' || what === 'cleats') && parts.length > 0) {
      const plan = { kind: what, since: await todayOf(db, scope, now) }
      await withTransaction(db, (tx) => recordPlan(tx, scope, { id: parts[0].id, memberId, plan }, now))
    }
    return recorded(result)
  },
})

const MOVE_REFUSAL = {
  idTaken: 'entryTaken',
  needsReason: 'moveNeedsReason',
  noNumbers: 'noNumbersToMove',
  noMark: 'noSuchMark',
  gone: 'noSuchNumbers',
} as const

async function movedOnFloor(tx: Database, scope: Scope, result: MoveResult): Promise<CommandOutcome> {
  if (result.outcome === 'kept') return SAVED
  if (result.outcome !== 'elsewhere') return refused({ code: MOVE_REFUSAL[result.outcome] })
  const { timeZone } = await getStudio(tx, scope)
  const { createdBy: by, createdAt } = result.entry
  return refused({ code: 'markElsewhere', label: result.label, by, time: formatTime(createdAt, timeZone) })
}

/** Moves one mark of a rider's numbers between two set-ups; the command's id is that of the new numbers. */
export const moveMark = defineCommand({
  name: 'register.moveMark',
  permission: 'setUpRiders',
  offline: 'moveMark',
  ownsId: true,
  schema: Type.Object({
    ...onFloor,
    axis: oneOf(AXES),
    from: labelSchema,
    to: labelSchema,
    why: oneOf(MOVE_REASONS),
    again: Type.Optional(oneOf(AGAIN_REASONS)),
  }),
  run: async (tx, scope, entry, context) => {
    const rider = await memberOf(tx, scope, entry)
    if ('outcome' in rider) return rider
    const { classId, bikeId, axis, from, to, why, again } = entry
    const move = { axis, from, to, why, ...(again && { again }) }
    const moved = { ...move, id: context.id, memberId: rider.memberId!, bikeId, classId: classId ?? null }
    const result = await moveMarkOf(tx, scope, moved, context.observedAt)
    if (result.outcome === 'outOfUse') return refused({ code: 'bikeOutOfUse', number: result.number })
    const outcome = await movedOnFloor(tx, scope, result)
    if (outcome.outcome === 'kept')
      announce(context, classId, { op: 'moveMark', classId, memberId: rider.memberId!, bikeId, ...move })
    return outcome
  },
})

/** What of a rider's numbers can be moved on a bike, and whether another change came before. */
export const movableMarks = defineQuery({
  name: 'register.movableMarks',
  permission: 'setUpRiders',
  schema: closed({ memberId: idSchema, bikeId: idSchema }),
  run: async (db, scope, input, now) => {
    const found = await movable(db, scope, input, now)
    return found ? { outcome: 'found', ...found } : refused({ code: 'noNumbersToMove' })
  },
})

/** The posterior's expectation for an axis at another mark; `outlook` is null without data of the rider. */
export const outlookOfMove = defineQuery({
  name: 'register.outlookOfMove',
  permission: 'setUpRiders',
  schema: closed({
    memberId: idSchema,
    bikeId: idSchema,
    axis: oneOf(AXES),
    to: Type.Array(labelSchema, { maxItems: 2 }),
  }),
  run: async (db, scope, input, now) => ({ outcome: 'found', outlook: await moveOutlook(db, scope, input, now) }),
})

/** Undoes a moved mark: restores the numbers before it. */
export const undoMove = defineCommand({
  name: 'register.undoMove',
  permission: 'setUpRiders',
  offline: 'undoMove',
  schema: Type.Object({ classId: onFloor.classId, moveId: idSchema }),
  run: async (tx, scope, { classId, moveId }, context) => {
    const there = await memberOf(tx, scope, { classId })
    if ('outcome' in there) return there
    const outcome = await movedOnFloor(tx, scope, await undoMoveOf(tx, scope, { id: context.id, moveId }, context.now))
    if (outcome.outcome === 'kept') announce(context, classId, { op: 'undoMove', classId, moveId })
    return outcome
  },
})

/** The time line from before an entry on. */
export const earlierEntries = defineQuery({
  name: 'register.earlierEntries',
  permission: 'seeNumbers',
  schema: closed({ memberId: idSchema, before: idSchema }),
  run: async (db, scope, { memberId, before }) => {
    const { timeZone } = await getStudio(db, scope)
    return { outcome: 'found', entries: await listEntries(db, scope, memberId, { before }), timeZone }
  },
})

/** Makes a link to a member's own page, or hands on the one that opens. */
export const openOwnPage = defineCommand({
  name: 'register.openOwnPage',
  permission: 'setUpRiders',
  schema: closed({ memberId: idSchema }),
  run: async (tx, scope, { memberId }, { now }) =>
    (await openLink(tx, scope, memberId, now)) ? SAVED : refused({ code: 'noSuchMember' }),
})

/** Records that a second person looked over numbers that a trainee saved. */
export const confirmNumbers = defineCommand({
  name: 'register.confirmNumbers',
  permission: 'confirmNumbers',
  schema: closed({ entryId: idSchema }),
  run: async (tx, scope, { entryId }, { now }) => {
    const outcome = await confirmation.confirmNumbers(tx, scope, entryId, now)
    if (outcome === 'kept') return SAVED
    return refused({ code: outcome === 'own' ? 'confirmByAnother' : 'noSuchNumbers' })
  },
})

/** Ends every link to a member's own page. */
export const revokeOwnPage = defineCommand({
  name: 'register.revokeOwnPage',
  permission: 'setUpRiders',
  schema: closed({ memberId: idSchema }),
  run: async (tx, scope, { memberId }, { now }) => {
    await revokeLinks(tx, scope, memberId, now)
    return SAVED
  },
})

/** Marks a message from a member's own page as handled. */
export const handleMessage = defineCommand({
  name: 'register.handleMessage',
  permission: 'writeNotes',
  schema: closed({ messageId: idSchema }),
  run: async (tx, scope, { messageId }, { now }) => {
    await markHandled(tx, scope, messageId, now)
    return SAVED
  },
})
