import { Type } from '@sinclair/typebox'
import { closed } from '../../core/base/schema'
import type { Evidence } from '../../core/riders/evidence/registry'
import { changeCode } from '../bikes/codes'
import { mayLeave } from '../bikes/codeLimits'
import { normalizeName } from '../riders/members/normalizeName'
import { leaveAloneSetup, lookAtAlone, MAX_OWN_ROWS, putAloneAside } from '../setups/aloneSetups'
import { allowRidersAlone, getStudio } from '../studio/studio'
import { checkedInRun, defineCodeCommand, defineCommand, idSchema, refused, SAVED, typedText } from './defineCommand'

const MAX_NAME = 60

/** A rider who set a machine up alone leaves their numbers with a name, for an instructor to look at. */
export const leave = defineCodeCommand({
  name: 'alone.leave',
  ownsId: true,
  schema: closed({
    name: typedText,
    /** What the device calls itself; it counts how often it leaves something. */
    device: idSchema,
    rows: Type.Array(checkedInRun<Evidence>(), { minItems: 1, maxItems: MAX_OWN_ROWS }),
    agrees: Type.Literal(true),
  }),
  run: async (tx, owner, { name: typed, device, rows }, { id, now }) => {
    const name = normalizeName(typed)
    if (!name) return refused({ code: 'ownNameMissing' })
    if (name.length > MAX_NAME) return refused({ code: 'nameTooLong', maxLength: MAX_NAME })
    if (!(await getStudio(tx, owner)).ridersAlone) return refused({ code: 'notAlone' })
    if (!(await mayLeave(device, owner.bikeId))) return refused({ code: 'tooManyHere' })
    const { outcome } = await leaveAloneSetup(tx, owner, { id, name, rows }, now)
    switch (outcome) {
      case 'kept':
        return SAVED
      case 'tooMany':
        return refused({ code: 'tooManyHere' })
      case 'outOfUse':
        return refused({ code: 'outOfUseHere' })
      default:
        return refused({ code: outcome })
    }
  },
})

/** An instructor looks at what was set alone: a set-up of the member begins with it. */
export const look = defineCommand({
  name: 'alone.look',
  permission: 'setUpRiders',
  schema: closed({ aloneId: idSchema, memberId: idSchema }),
  run: async (tx, scope, { aloneId, memberId }, { id, now }) => {
    const result = await lookAtAlone(tx, scope, { id: aloneId, memberId, setupId: id }, now)
    if (result.outcome === 'kept') return { outcome: 'kept', setupId: result.setupId }
    return refused({ code: result.outcome === 'outOfUse' ? 'bikeGone' : 'lookedAtAlready' })
  },
})

/** What was set alone is put aside without a look; `aside: false` takes it back out. */
export const putAside = defineCommand({
  name: 'alone.putAside',
  permission: 'setUpRiders',
  schema: closed({ aloneId: idSchema, aside: Type.Boolean() }),
  run: async (tx, scope, { aloneId, aside }, { now }) => {
    await putAloneAside(tx, scope, aloneId, aside ? now : null)
    return SAVED
  },
})

/** A machine gets another code; the printed one opens nothing from now on. */
export const newCode = defineCommand({
  name: 'alone.newCode',
  permission: 'manageBikes',
  schema: closed({ bikeId: idSchema }),
  run: async (tx, scope, { bikeId }, { now }) =>
    (await changeCode(tx, scope, bikeId, now)) ? SAVED : refused({ code: 'noSuchBike' }),
})

/** Whether riders may set machines up alone. */
export const allow = defineCommand({
  name: 'alone.allow',
  permission: 'manageStudio',
  schema: closed({ allowed: Type.Boolean() }),
  run: async (tx, scope, { allowed }) => {
    await allowRidersAlone(tx, scope, allowed)
    return SAVED
  },
})
