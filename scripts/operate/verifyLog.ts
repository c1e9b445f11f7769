/** Checks the access log of every studio; prints one line of JSON: `[{ studio, say, isWhole }]`. */
import { formatVerdict } from '../../core/messages/studio/accessLog'
import { studio } from '../../server/platform/accounts/tables'
import { closeDatabase, database } from '../../server/platform/db/connection'
import { notedEnds } from '../../server/privacy/accessLog/ends'
import { settleAccessLog } from '../../server/privacy/accessLog/settle'
import { verifyAccessLog } from '../../server/privacy/accessLog/verify'

const verdicts = []
for (const { id, name } of await database().select({ id: studio.id, name: studio.name }).from(studio)) {
  await settleAccessLog(database(), id)
  const verdict = await verifyAccessLog(database(), id, notedEnds(process.env.DATA_FOLDER, id))
  verdicts.push({ studio: name, say: formatVerdict(verdict), isWhole: verdict.outcome === 'whole' })
}
console.log(JSON.stringify(verdicts))
await closeDatabase()
