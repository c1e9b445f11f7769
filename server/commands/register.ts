import { Type } from '@sinclair/typebox'
import { CHANGES } from '../../core/setups/register/entry'
import { closed, oneOf } from '../../core/base/schema'
import type { Source } from '../../core/setups/translate/translate'
import { openLink, revokeLinks } from '../riders/memberPage/links'
import { handleMessage as markHandled } from '../riders/memberPage/messages'
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
  run: async (db, scope, input, { now }) => recorded(await saveChange(db, scope, input, now)),
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
