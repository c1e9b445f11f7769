import { Type } from '@sinclair/typebox'
import { closed, oneOf } from '../../core/base/schema'
import { ROLES } from '../platform/db/roles'
import * as invitations from '../studio/invitations'
import * as tablets from '../classes/rooms/tablets'
import * as keys from '../platform/accounts/apiKeys'
import { KEY_SCOPES } from '../platform/accounts/tables'
import { normalizeName } from '../riders/members/normalizeName'
import { requireSecondFactor as requireOf } from '../platform/accounts/secondFactor'
import { endOwnSession as endSession } from '../platform/accounts/ownSessions'
import { changeRole as setRole, endAccess as end, type PeopleResult } from '../studio/people'
import { defineCommand, idOrNull, idSchema, refused, SAVED, typedText, type CommandOutcome } from './defineCommand'

const MAX_PROGRAM_NAME = 80
const MAX_TABLET_NAME = 60
const MAX_IDLE_MINUTES = 60
const REFUSAL = { gone: 'noSuchPerson', lastManager: 'lastManager' } as const

const changed = (result: PeopleResult): CommandOutcome =>
  result === 'kept' ? SAVED : refused({ code: REFUSAL[result] })

/** Makes a one-time link to a new account of a role, or to a new password of a person; the id is the link's. */
export const invite = defineCommand({
  name: 'people.invite',
  permission: 'manageStudio',
  ownsId: true,
  schema: closed({ role: oneOf(ROLES), userId: idOrNull }),
  run: async (tx, scope, { role, userId }, { id, now }) =>
    (await invitations.invite(tx, scope, { id, role, userId }, now)) === 'kept'
      ? SAVED
      : refused({ code: 'noSuchPerson' }),
})

/** Takes a link back that nobody used yet. */
export const revokeInvitation = defineCommand({
  name: 'people.revokeInvitation',
  permission: 'manageStudio',
  schema: closed({ invitationId: idSchema }),
  run: async (tx, scope, { invitationId }, { now }) => {
    await invitations.revokeInvitation(tx, scope, invitationId, now)
    return SAVED
  },
})

/** Gives a person another role. */
export const changeRole = defineCommand({
  name: 'people.changeRole',
  permission: 'manageStudio',
  schema: closed({ userId: idSchema, role: oneOf(ROLES) }),
  run: async (tx, scope, input, { now }) => changed(await setRole(tx, scope, input, now)),
})

/** Ends a person's access: their sessions end at once, their name stays beside what they did. */
export const endAccess = defineCommand({
  name: 'people.endAccess',
  permission: 'manageStudio',
  schema: closed({ userId: idSchema }),
  run: async (tx, scope, { userId }, { now }) => changed(await end(tx, scope, userId, now)),
})

/**
 * Makes a key for another program, which acts under its name from then on. The key is made where it is shown; only its
 * SHA-256 comes here. The command's id is the key's.
 */
export const makeKey = defineCommand({
  name: 'people.makeKey',
  permission: 'manageStudio',
  ownsId: true,
  schema: closed({ program: typedText, scope: oneOf(KEY_SCOPES), keyHash: Type.String({ pattern: '^[0-9a-f]{64}$' }) }),
  run: async (tx, scope, { program, scope: of, keyHash }, { id, now }) => {
    const name = normalizeName(program).slice(0, MAX_PROGRAM_NAME)
    if (name === '') return refused({ code: 'malformed' })
    const outcome = await keys.makeKey(tx, scope, { id, name, scope: of, keyHash }, now)
    return outcome === 'kept' ? SAVED : refused({ code: 'idTaken' })
  },
})

/** Revokes a key from the next request on; past actions still show its name. */
export const revokeKey = defineCommand({
  name: 'people.revokeKey',
  permission: 'manageStudio',
  schema: closed({ keyId: idSchema }),
  run: async (tx, scope, { keyId }, { now }) => {
    await keys.revokeKey(tx, scope, keyId, now)
    return SAVED
  },
})

/**
 * Pairs a tablet that people of the studio share. Its token is made on the tablet; only its SHA-256 comes here. The
 * command's id is the tablet's.
 */
export const pairTablet = defineCommand({
  name: 'people.pairTablet',
  permission: 'manageStudio',
  ownsId: true,
  schema: closed({
    name: typedText,
    roomId: idOrNull,
    idleMinutes: Type.Integer({ minimum: 1, maximum: MAX_IDLE_MINUTES }),
    tokenHash: Type.String({ pattern: '^[0-9a-f]{64}$' }),
  }),
  run: async (tx, scope, { name: typed, roomId, idleMinutes, tokenHash }, { id, now }) => {
    const name = normalizeName(typed).slice(0, MAX_TABLET_NAME)
    if (name === '') return refused({ code: 'malformed' })
    const outcome = await tablets.pairTablet(tx, scope, { id, name, roomId, idleMinutes, tokenHash }, now)
    return outcome === 'kept' ? SAVED : refused({ code: outcome })
  },
})

/** Unpairs a tablet and ends its sessions at once. */
export const endTablet = defineCommand({
  name: 'people.endTablet',
  permission: 'manageStudio',
  schema: closed({ tabletId: idSchema }),
  run: async (tx, scope, { tabletId }, { now }) => {
    await tablets.endTablet(tx, scope, tabletId, now)
    return SAVED
  },
})

/** Requires a second factor of everybody with one of these roles. */
export const requireSecondFactor = defineCommand({
  name: 'people.requireSecondFactor',
  permission: 'manageStudio',
  schema: closed({ roles: Type.Array(oneOf(ROLES), { maxItems: ROLES.length }) }),
  run: async (tx, scope, { roles }) => {
    await requireOf(tx, scope, [...new Set(roles)])
    return SAVED
  },
})

/** Signs oneself out elsewhere. */
export const endOwnSession = defineCommand({
  name: 'people.endOwnSession',
  permission: 'seeNumbers',
  schema: closed({ sessionId: idSchema }),
  run: async (tx, scope, { sessionId }) => {
    await endSession(tx, scope, sessionId)
    return SAVED
  },
})
