import { isEmail, MAX_NUMBER_LENGTH, readStature } from '../../core/setups/openFiles/memberRow'
import { Type } from '@sinclair/typebox'
import { closed, oneOf } from '../../core/base/schema'
import { limitIssue, limitSchema } from '../../core/riders/limits/limits'
import { planIssue, planSchema } from '../../core/riders/plans/plan'
import { can } from '../platform/accounts/can'
import { mergedInto } from '../riders/members/members'
import * as consents from '../riders/consent'
import * as limits from '../riders/limits'
import * as plans from '../riders/plans'
import * as members from '../riders/members/members'
import * as merges from './useCases/mergeMembers'
import * as erasures from '../privacy/eraseMember'
import { rememberErasures } from '../privacy/erasureFile'
import { normalizeName } from '../riders/members/normalizeName'
import { defineCommand, defineQuery, idSchema, SAVED, refused, typedText } from './defineCommand'

/** Names offered at once; a few letters more find the rest. */
const MAX_FOUND = 40
const MAX_SEARCH_LENGTH = 100

const textOrNull = Type.Unsafe<string | null>({ type: ['string', 'null'], maxLength: 2000 })

/** Adds a member, whose id is the command's. `anyway` adds a second one of the same name. */
export const addMember = defineCommand({
  name: 'members.addMember',
  permission: 'addMembers',
  ownsId: true,
  schema: closed({ typed: typedText, anyway: Type.Boolean() }),
  run: async (tx, scope, { typed, anyway }, { id, now }) => {
    const name = members.checkName(typed)
    if (typeof name !== 'string') return refused(name)
    if (id.length !== 36) return refused({ code: 'malformed' })
    const same = (await members.findMembersByName(tx, scope, name)).filter((member) => member.id !== id)
    if (same.length > 0 && !anyway) return refused({ code: 'sameName', name })
    const added = await members.addMember(tx, scope, { id, name }, now)
    if (added.outcome === 'kept') return { outcome: 'kept', memberId: id }
    // The id is of nobody of this studio.
    if (added.name === '') return refused({ code: 'malformed' })
    return refused({ code: 'addedBefore', name, as: added.name })
  },
})

/** Corrects the name that an earlier try saved. */
export const renameMember = defineCommand({
  name: 'members.renameMember',
  permission: 'addMembers',
  schema: closed({ memberId: idSchema, from: typedText, typed: typedText }),
  run: async (tx, scope, { memberId, from, typed }) => {
    const to = members.checkName(typed)
    if (typeof to !== 'string') return refused(to)
    const isRenamed = await members.renameMember(tx, scope, memberId, { from, to })
    return isRenamed ? { outcome: 'kept', memberId } : refused({ code: 'renamedMeanwhile' })
  },
})

/** Records a limit of a rider, who has agreed to it; the command's id is the limit's. */
export const recordLimit = defineCommand({
  name: 'members.recordLimit',
  permission: 'writeNotes',
  ownsId: true,
  schema: closed({ memberId: idSchema, limit: limitSchema, consent: Type.Boolean() }),
  run: async (tx, scope, { memberId, limit, consent }, { id, now }) => {
    if (!consent) return refused({ code: 'limitNeedsConsent' })
    const today = await limits.todayOf(tx, scope, now)
    const issue = limitIssue(limit, today)
    if (issue) return refused({ code: 'badLimit', issue })
    const { outcome } = await limits.recordLimit(tx, scope, { id, memberId, limit }, now)
    if (outcome !== 'kept') return refused({ code: outcome === 'gone' ? 'noSuchMember' : 'idTaken' })
    await consents.giveConsent(tx, scope, memberId, 'spoken', now)
    // A pregnancy plans a second look at the set-up.
    if (limit.kind === 'pregnancy')
      await plans.recordPlan(tx, scope, { id, memberId, plan: { kind: 'recheck', since: today } }, now)
    return SAVED
  },
})

const ofLimit = closed({ memberId: idSchema, limitId: idSchema })

/** Ends a limit. */
export const endLimit = defineCommand({
  name: 'members.endLimit',
  permission: 'writeNotes',
  schema: ofLimit,
  run: async (tx, scope, { memberId, limitId }, { now }) => {
    await limits.endLimit(tx, scope, { id: limitId, memberId }, now)
    return SAVED
  },
})

/** Takes back the end of a limit. */
export const reopenLimit = defineCommand({
  name: 'members.reopenLimit',
  permission: 'writeNotes',
  schema: ofLimit,
  run: async (tx, scope, { memberId, limitId }) => {
    await limits.reopenLimit(tx, scope, { id: limitId, memberId })
    return SAVED
  },
})

/** Records what is to be done for a rider later; the command's id is the plan's. */
export const recordPlan = defineCommand({
  name: 'members.recordPlan',
  permission: 'writeNotes',
  ownsId: true,
  schema: closed({ memberId: idSchema, plan: planSchema }),
  run: async (tx, scope, { memberId, plan }, { id, now }) => {
    const issue = planIssue(plan, await limits.todayOf(tx, scope, now))
    if (issue) return refused({ code: 'badPlan', issue })
    const { outcome } = await plans.recordPlan(tx, scope, { id, memberId, plan }, now)
    if (outcome === 'kept') return SAVED
    return refused({ code: outcome === 'gone' ? 'noSuchMember' : 'idTaken' })
  },
})

const ofPlan = closed({ memberId: idSchema, planId: idSchema })

/** Ticks a plan: a recurring one restarts from now, any other ends. */
export const tickPlan = defineCommand({
  name: 'members.tickPlan',
  permission: 'writeNotes',
  schema: ofPlan,
  run: async (tx, scope, { memberId, planId }, { now }) => {
    await plans.tickPlan(tx, scope, { id: planId, memberId }, now)
    return SAVED
  },
})

/** Drops a plan. */
export const endPlan = defineCommand({
  name: 'members.endPlan',
  permission: 'writeNotes',
  schema: ofPlan,
  run: async (tx, scope, { memberId, planId }, { now }) => {
    await plans.endPlan(tx, scope, { id: planId, memberId }, now)
    return SAVED
  },
})

/** Takes back the tick or the end of a plan. */
export const reopenPlan = defineCommand({
  name: 'members.reopenPlan',
  permission: 'writeNotes',
  schema: ofPlan,
  run: async (tx, scope, { memberId, planId }) => {
    await plans.reopenPlan(tx, scope, { id: planId, memberId })
    return SAVED
  },
})

/** Changes a member's record, given the record as it was when the page was opened. A height left out stays. */
export const changeMember = defineCommand({
  name: 'members.changeMember',
  permission: 'addMembers',
  schema: closed({
    from: closed({
      id: idSchema,
      name: typedText,
      number: textOrNull,
      email: textOrNull,
      statureMm: Type.Unsafe<number | null>({ type: ['number', 'null'] }),
    }),
    typed: closed({ name: typedText, number: typedText, email: typedText, height: Type.Optional(typedText) }),
  }),
  run: async (tx, scope, { from, typed }) => {
    const name = members.checkName(typed.name)
    if (typeof name !== 'string') return refused(name)
    const [number, email, height] = [typed.number, typed.email, typed.height ?? ''].map((text) => text.trim())
    if (number.length > MAX_NUMBER_LENGTH) return refused({ code: 'numberTooLong' })
    if (email !== '' && !isEmail(email)) return refused({ code: 'notAnEmail' })
    // Heights are not shown to every role: a role that sees none leaves it as it is.
    const seesBody = can(scope, 'seeNotes')
    const hidden = seesBody ? null : await members.findMember(tx, scope, from.id)
    const shown = { ...from, statureMm: hidden ? hidden.statureMm : from.statureMm }
    const typedMm = seesBody && typed.height !== undefined && height !== '' ? readStature(height) : null
    if (seesBody && height !== '' && typedMm === null) return refused({ code: 'notAHeight' })
    const statureMm = seesBody && typed.height !== undefined ? typedMm : shown.statureMm
    const to = { name, number: number || null, email: email || null, statureMm }
    switch ((await members.changeMember(tx, scope, shown, to)).outcome) {
      case 'kept':
        return SAVED
      case 'gone':
        return refused({ code: 'noSuchMember' })
      case 'changed':
        return refused({ code: 'changedMeanwhile' })
      case 'numberTaken':
        return refused({ code: 'memberNumberTaken', number })
    }
  },
})

const pair = closed({ from: idSchema, into: idSchema })

/** What merging a member into another would move. */
export const previewMerge = defineQuery({
  name: 'members.previewMerge',
  permission: 'manageStudio',
  schema: pair,
  run: async (db, scope, { from, into }) => {
    if (from === into) return refused({ code: 'sameMember' })
    const preview = await merges.previewMerge(db, scope, { from, into })
    return preview ? { outcome: 'found', preview } : refused({ code: 'noSuchMember' })
  },
})

/** Merges a member into another, for good. */
export const mergeMembers = defineCommand({
  name: 'members.mergeMembers',
  permission: 'manageStudio',
  schema: pair,
  run: async (tx, scope, { from, into }, { now }) => {
    const { outcome } = await merges.mergeMembers(tx, scope, { from, into }, now)
    if (outcome === 'kept') return SAVED
    // Sent again under another id after the answer was lost: it is done.
    if (outcome === 'gone' && (await mergedInto(tx, scope, from)) === into) return SAVED
    return refused({ code: outcome === 'same' ? 'sameMember' : 'noSuchMember' })
  },
})

/** Records that a member agrees to health notes; agreed before, it stays as it was. */
export const giveConsent = defineCommand({
  name: 'members.giveConsent',
  permission: 'writeNotes',
  schema: closed({ memberId: idSchema, way: oneOf(['spoken', 'written']) }),
  run: async (tx, scope, { memberId, way }, { now }) =>
    (await consents.giveConsent(tx, scope, memberId, way, now)) ? SAVED : refused({ code: 'noSuchMember' }),
})

/** Records that a member withdraws their consent to health notes. */
export const withdrawConsent = defineCommand({
  name: 'members.withdrawConsent',
  permission: 'writeNotes',
  schema: closed({ memberId: idSchema }),
  run: async (tx, scope, { memberId }, { now }) => {
    await consents.withdrawConsent(tx, scope, memberId, now)
    return SAVED
  },
})

/** Erases everything about a member, for good. The one who erases types the name as it is written. */
export const eraseMember = defineCommand({
  name: 'members.eraseMember',
  permission: 'managePrivacy',
  schema: closed({ memberId: idSchema, name: typedText }),
  run: async (tx, scope, { memberId, name }, { now, afterCommit }) => {
    const found = await members.findMember(tx, scope, memberId)
    // Sent again under another id after the answer was lost: it is done.
    if (!found) return (await erasures.wasErased(tx, scope, memberId)) ? SAVED : refused({ code: 'noSuchMember' })
    if (normalizeName(name) !== found.name) return refused({ code: 'otherName' })
    const erased = await erasures.eraseMember(tx, scope, memberId, now)
    afterCommit(() => rememberErasures(process.env.DATA_FOLDER, erased))
    return SAVED
  },
})

/** Members whose name has every word typed, the first forty. */
export const findMembers = defineQuery({
  name: 'members.findMembers',
  permission: 'seeNumbers',
  schema: closed({ typed: typedText }),
  run: async (db, scope, { typed }) => ({
    outcome: 'found',
    members: await members.findMembers(db, scope, typed.slice(0, MAX_SEARCH_LENGTH), MAX_FOUND),
  }),
})
