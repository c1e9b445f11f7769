import { Type } from '@sinclair/typebox'
import { MAX_WORDING_LENGTH } from '../../core/riders/consent/consent'
import { closed } from '../../core/base/schema'
import { retentionSchema } from '../../core/riders/retention/retention'
import { notedEnds } from '../privacy/accessLog/ends'
import { settleAccessLog } from '../privacy/accessLog/settle'
import { verifyAccessLog } from '../privacy/accessLog/verify'
import * as kept from '../privacy/retention'
import { addWording } from '../riders/consent'
import { defineCommand, defineQuery, refused, SAVED } from './defineCommand'

/** Whether the access log is as it was written. */
export const verifyLog = defineQuery({
  name: 'privacy.verifyLog',
  permission: 'managePrivacy',
  schema: closed({}),
  run: async (db, { studioId }) => {
    await settleAccessLog(db, studioId)
    const verdict = await verifyAccessLog(db, studioId, notedEnds(process.env.DATA_FOLDER, studioId))
    return { outcome: 'found', verdict }
  },
})

/** The studio's own wording of the consent, in force from now on. */
export const saveConsentWording = defineCommand({
  name: 'privacy.saveConsentWording',
  permission: 'managePrivacy',
  schema: closed({ wording: Type.String({ maxLength: MAX_WORDING_LENGTH }) }),
  run: async (tx, scope, { wording }, { now }) => {
    const text = wording.trim()
    if (text === '') return refused({ code: 'emptyWording' })
    await addWording(tx, scope, text, now)
    return SAVED
  },
})

/** How many rows a retention would delete today. */
export const previewRetention = defineQuery({
  name: 'privacy.previewRetention',
  permission: 'managePrivacy',
  schema: closed({ retention: retentionSchema }),
  run: async (db, scope, { retention }, now) => ({
    outcome: 'found',
    counts: await kept.previewRetention(db, scope, retention, now),
  }),
})

/** Sets the retention times; deletes older rows at once, and then every day. */
export const saveRetention = defineCommand({
  name: 'privacy.saveRetention',
  permission: 'managePrivacy',
  inTransaction: false,
  schema: closed({ retention: retentionSchema }),
  run: async (db, scope, { retention }, { now }) => {
    await kept.saveRetention(db, scope, retention)
    await kept.applyRetention(db, scope, now)
    return SAVED
  },
})
