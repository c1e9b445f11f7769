import { createHash } from 'node:crypto'
import { and, asc, desc, eq, gt, isNull, sql } from 'drizzle-orm'
import { CHANGED_TEXT, RIGHTS_TEXT } from '../../../core/messages/studio/accessLog'
import { studio } from '../../platform/accounts/tables'
import { withTransaction, type Database, type DbExecutor } from '../../platform/db/connection'
import { noteEnd } from './ends'
import { accessChain, accessLog } from './tables'

/** A row of the log as it is hashed. */
export type AccessEntry = Pick<
  typeof accessLog.$inferSelect,
  'position' | 'at' | 'actor' | 'kind' | 'what' | 'subject' | 'commandId'
>

/** Receipts so much older than the latest entry are looked through again: a long transaction commits late. */
const OVERLAP_MS = 600_000
/** Rows whose transaction committed after that of a later row are found this far behind the end of the chain. */
const LATE_ROWS = 10_000
const BATCH = 1000
const COLUMNS = {
  position: accessLog.position,
  at: accessLog.at,
  actor: accessLog.actor,
  kind: accessLog.kind,
  what: accessLog.what,
  subject: accessLog.subject,
  commandId: accessLog.commandId,
}

/** SHA-256 over the link before (the studio's id before the first) and the entry. */
export const linkHash = (
  before: string,
  { position, at, actor, kind, what, subject, commandId }: AccessEntry,
): string =>
  createHash('sha256')
    .update(JSON.stringify([before, position, at.toISOString(), actor, kind, what, subject, commandId]))
    .digest('hex')

/** The end of a studio's chain. */
export async function chainEnd(db: DbExecutor, studioId: string) {
  const [last] = await db
    .select({ link: accessChain.link, hash: accessChain.hash, logPosition: accessChain.logPosition })
    .from(accessChain)
    .where(eq(accessChain.studioId, studioId))
    .orderBy(desc(accessChain.link))
    .limit(1)
  return last ?? { link: 0, hash: studioId, logPosition: 0 }
}

/**
 * Takes commands that changed health data or rights over from their receipts, which are written with them, and links
 * what is not linked yet. A command that was carried out is in the log once this has run; nothing is lost by a crash
 * before. One studio at a time; done again it changes nothing.
 */
export async function settleAccessLog(db: Database, studioId: string): Promise<void> {
  const settle = async (tx: DbExecutor) => {
    // One run at a time for each studio.
    await tx.select({ id: studio.id }).from(studio).where(eq(studio.id, studioId)).for('update')
    await takeOver(tx as Database, studioId)
    for (let linked = BATCH; linked === BATCH;) linked = await linkMore(tx, studioId)
  }
  // Otherwise the receipts read here would be locked, and every command would wait for this.
  await withTransaction(db, settle, { isolationLevel: 'read committed' })
  noteEnd(process.env.DATA_FOLDER, studioId, await chainEnd(db, studioId))
}

async function takeOver(tx: Database, studioId: string): Promise<void> {
  const names = (texts: object) =>
    sql.join(
      Object.keys(texts).map((name) => sql`${name}`),
      sql`, `,
    )
  const [last] = await tx
    .select({ at: accessLog.at })
    .from(accessLog)
    .where(and(eq(accessLog.studioId, studioId), sql`${accessLog.commandId} IS NOT NULL`))
    .orderBy(desc(accessLog.at))
    .limit(1)
  const since = new Date((last?.at.getTime() ?? 0) - OVERLAP_MS)
  await tx.execute(sql`
    INSERT IGNORE INTO access_log (studio_id, at, actor, kind, what, subject, command_id)
    SELECT r.studio_id, r.at, r.actor, IF(r.name IN (${names(RIGHTS_TEXT)}), 'rights', 'changed'), r.name,
      COALESCE(s.member_id, c.member_id, t.member_id, n.member_id, e.member_id, m.member_id, r.subject), r.id
    FROM command_receipt r
      LEFT JOIN setup s ON s.id = r.subject
      LEFT JOIN complaint c ON c.id = r.subject
      LEFT JOIN trial t ON t.id = r.subject
      LEFT JOIN class_note n ON n.id = r.subject
      LEFT JOIN register_entry e ON e.id = r.subject
      LEFT JOIN member_message m ON m.id = r.subject
    WHERE r.studio_id = ${studioId} AND r.at >= ${since}
      AND r.name IN (${names({ ...CHANGED_TEXT, ...RIGHTS_TEXT })})
      AND NOT EXISTS (SELECT 1 FROM access_log a WHERE a.studio_id = r.studio_id AND a.command_id = r.id)
    ORDER BY r.at, r.id`)
}

async function linkMore(tx: DbExecutor, studioId: string): Promise<number> {
  const end = await chainEnd(tx, studioId)
  const rows = await tx
    .select(COLUMNS)
    .from(accessLog)
    .leftJoin(accessChain, eq(accessChain.logPosition, accessLog.position))
    .where(
      and(
        eq(accessLog.studioId, studioId),
        gt(accessLog.position, end.logPosition - LATE_ROWS),
        isNull(accessChain.link),
      ),
    )
    .orderBy(asc(accessLog.position))
    .limit(BATCH)
  let { link, hash } = end
  const links = rows.map((row) => {
    link += 1
    hash = linkHash(hash, row)
    return { studioId, link, logPosition: row.position, hash }
  })
  if (links.length > 0) await tx.insert(accessChain).values(links)
  return links.length
}

/** Whether this process updates the log on its own: the server does, scripts and tests call `settle`. */
let isKept = false
const waiting = new Map<string, NodeJS.Timeout>()
const SOON_MS = 10_000

/** From now on `settleSoon` works in this process. */
export function keepAccessLog(): void {
  isKept = true
}

/** Settles a studio's log within seconds, once for many calls; the next call retries a failure. */
export function settleSoon(db: Database, studioId: string): void {
  if (!isKept || waiting.has(studioId)) return
  const timer = setTimeout(() => {
    waiting.delete(studioId)
    settleAccessLog(db, studioId).catch((error: unknown) => console.error('The access log waits:', error))
  }, SOON_MS)
  timer.unref()
  waiting.set(studioId, timer)
}
