import { closed } from '../../core/base/schema'
import { retentionSchema } from '../../core/riders/retention/retention'
import { notedEnds } from '../privacy/accessLog/ends'
import { settleAccessLog } from '../privacy/accessLog/settle'
import { verifyAccessLog } from '../privacy/accessLog/verify'
import * as kept from '../privacy/retention'
import { defineCommand, defineQuery, SAVED } from './defineCommand'

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

/** How long the studio keeps what it notes, from now on; what is older is deleted at once, and then every day. */
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
