import { Type } from '@sinclair/typebox'
import { KEY_PATTERN, MAX_LIMITS, MAX_RIDER_FILE_LENGTH, MAX_SETS } from '../../core/riders/riderFile/riderFile'
import { oneLine } from '../../core/riders/memberPage/message'
import { closed } from '../../core/base/schema'
import { bringRiderFile } from '../files/riderFile/bring'
import { readRiderFile as readFile } from '../files/riderFile/read'
import { checkName } from '../riders/members/members'
import * as keys from '../studio/studioKeys'
import { defineCommand, defineQuery, idOrNull, idSchema, refused, SAVED } from './defineCommand'

const MAX_STUDIO_NAME = 120
/** A set on each of a studio's types. */
const MAX_CHOSEN = 4 * MAX_SETS

/** The text of a rider's own file, or of its code. */
const textSchema = Type.String({ minLength: 1, maxLength: MAX_RIDER_FILE_LENGTH })

/** Reads a rider's own file from another studio; nothing is written. */
export const readRiderFile = defineQuery({
  name: 'riderFiles.readRiderFile',
  permission: 'setUpRiders',
  schema: closed({ text: textSchema, memberId: idOrNull }),
  run: async (db, scope, input, now) => ({ outcome: 'found', file: await readFile(db, scope, input, now) }),
})

const BRING_REFUSAL = {
  gone: 'fileChanged',
  idTaken: 'idTaken',
  told: 'fileIsTold',
  unreadable: 'fileUnreadable',
} as const

/** Takes what was chosen of a rider's own file; the command's id is that of its record. */
export const takeRiderFile = defineCommand({
  name: 'riderFiles.takeRiderFile',
  permission: 'setUpRiders',
  ownsId: true,
  inTransaction: false,
  schema: closed({
    text: textSchema,
    memberId: idSchema,
    /** Of a new member; null for one who is here. */
    newName: Type.Union([Type.String({ maxLength: 400 }), Type.Null()]),
    sets: Type.Array(closed({ id: idSchema, setId: Type.String({ minLength: 1, maxLength: 64 }), lineId: idSchema }), {
      maxItems: MAX_CHOSEN,
    }),
    body: Type.Boolean(),
    wish: Type.Boolean(),
    limits: Type.Array(closed({ id: idSchema, index: Type.Integer({ minimum: 0, maximum: MAX_LIMITS }) }), {
      maxItems: MAX_LIMITS,
    }),
  }),
  run: async (db, scope, input, { id, now }) => {
    const newName = input.newName === null ? null : checkName(input.newName)
    if (newName !== null && typeof newName !== 'string') return refused(newName)
    const result = await bringRiderFile(db, scope, { ...input, newName, id }, now)
    if (result.outcome !== 'kept') return refused({ code: BRING_REFUSAL[result.outcome] })
    return { outcome: 'kept', memberId: input.memberId, recorded: result.recorded }
  },
})

const keySchema = Type.String({ pattern: KEY_PATTERN })

/** Takes files of another studio as measured from now on. */
export const knowStudio = defineCommand({
  name: 'riderFiles.knowStudio',
  permission: 'manageStudio',
  schema: closed({ key: keySchema, studioName: Type.String({ maxLength: 400 }) }),
  run: async (tx, scope, { key, studioName }, { now }) => {
    const name = oneLine(studioName).slice(0, MAX_STUDIO_NAME)
    if (name === '') return refused({ code: 'noStudioName' })
    await keys.knowStudio(tx, scope, { key, name }, now)
    return SAVED
  },
})

/** Takes files of a studio as told from now on. */
export const forgetStudio = defineCommand({
  name: 'riderFiles.forgetStudio',
  permission: 'manageStudio',
  schema: closed({ key: keySchema }),
  run: async (tx, scope, { key }) => {
    await keys.forgetStudio(tx, scope, key)
    return SAVED
  },
})
