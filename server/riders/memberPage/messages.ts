import { and, desc, eq, isNull } from 'drizzle-orm'
import type { MemberMessageBody, MemberMessageKind, HomeMeasures } from '../../../core/riders/memberPage/message'
import type { Scope } from '../../platform/accounts/scope'
import type { Database, DbExecutor } from '../../platform/db/connection'
import { insertOnce, type WriteResult } from '../../platform/db/insertOnce'
import { sealRow } from '../../platform/sealing/sealed'
import { memberMessage } from './tables'
import { writeFromPage, type TooMany } from './daily'
import type { LinkOwner } from './links'

export type MemberMessage = Readonly<{
  id: string
  kind: MemberMessageKind
  body: MemberMessageBody
  createdAt: Date
  handledAt: Date | null
}>

/** So many are shown of one member. */
const MAX_SHOWN = 30

/**
 * Stores a message from a member's page; the same id with the same content again changes nothing. `tooMany`: as much
 * was sent within a day.
 */
export async function addMessage(
  db: Database,
  { linkId, studioId, memberId }: Pick<LinkOwner, 'linkId' | 'studioId' | 'memberId'>,
  { id, kind, body }: Readonly<{ id: string; kind: MemberMessageKind; body: MemberMessageBody }>,
  now: Date,
): Promise<WriteResult | TooMany> {
  const content = { id, studioId, memberId, linkId, kind, body }
  return writeFromPage(db, { linkId, memberId }, { table: memberMessage, id }, now, (tx) =>
    insertOnce(
      () => tx.insert(memberMessage).values(sealRow(memberMessage, studioId, { ...content, createdAt: now })),
      async () => {
        const [found] = await tx.select().from(memberMessage).where(eq(memberMessage.id, id))
        return found && { ...content, ...pick(found) }
      },
      content,
    ),
  )
}
const pick = ({ id, studioId, memberId, linkId, kind, body }: typeof memberMessage.$inferSelect) => ({
  id,
  studioId,
  memberId,
  linkId,
  kind,
  body,
})

/** Messages of a member, the latest first. */
export async function listMessages(db: DbExecutor, scope: Scope, memberId: string): Promise<MemberMessage[]> {
  return db
    .select({
      id: memberMessage.id,
      kind: memberMessage.kind,
      body: memberMessage.body,
      createdAt: memberMessage.createdAt,
      handledAt: memberMessage.handledAt,
    })
    .from(memberMessage)
    .where(and(eq(memberMessage.memberId, memberId), eq(memberMessage.studioId, scope.studioId)))
    .orderBy(desc(memberMessage.createdAt))
    .limit(MAX_SHOWN)
}

/** Marks a message as handled; of another studio, or handled before, nothing changes. */
export async function handleMessage(db: DbExecutor, scope: Scope, id: string, now: Date): Promise<void> {
  await db
    .update(memberMessage)
    .set({ handledAt: now, handledBy: scope.userId })
    .where(and(eq(memberMessage.id, id), eq(memberMessage.studioId, scope.studioId), isNull(memberMessage.handledAt)))
}

/** What a member answered and measured at home, the latest first. */
export async function listHomeMeasures(
  db: DbExecutor,
  { studioId }: Pick<Scope, 'studioId'>,
  memberId: string,
  limit = MAX_SHOWN,
): Promise<readonly Readonly<{ measures: HomeMeasures; at: Date }>[]> {
  const found = await db
    .select({ body: memberMessage.body, at: memberMessage.createdAt })
    .from(memberMessage)
    .where(
      and(eq(memberMessage.memberId, memberId), eq(memberMessage.studioId, studioId), eq(memberMessage.kind, 'home')),
    )
    .orderBy(desc(memberMessage.createdAt))
    .limit(limit)
  return found.map(({ body, at }) => ({ measures: body as HomeMeasures, at }))
}

/** What a member measured at home last, or null. */
export const latestHomeMeasures = async (db: DbExecutor, scope: Pick<Scope, 'studioId'>, memberId: string) =>
  (await listHomeMeasures(db, scope, memberId, 1)).at(0) ?? null
