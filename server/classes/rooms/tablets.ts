import { and, asc, eq, isNull } from 'drizzle-orm'
import { findRoom } from './rooms'
import { room } from './tables'
import type { Scope } from '../../platform/accounts/scope'
import { announceSessionsEnded } from '../../platform/accounts/sessionsEnded'
import { session, tablet } from '../../platform/accounts/tables'
import type { DbExecutor } from '../../platform/db/connection'
import { insertOnce } from '../../platform/db/insertOnce'

/** A tablet that several people share. */
export type SharedTablet = Readonly<{
  id: string
  name: string
  room: string | null
  idleMinutes: number
  createdAt: Date
  usedAt: Date | null
}>
type NewTablet = Readonly<{ id: string; name: string; roomId: string | null; idleMinutes: number; tokenHash: string }>

/** Pairs a tablet. Idempotent by id; `noSuchRoom` of the studio, `idTaken` where id or token are another's. */
export async function pairTablet(
  tx: DbExecutor,
  scope: Scope,
  { id, name, roomId, idleMinutes, tokenHash }: NewTablet,
  now: Date,
): Promise<'kept' | 'noSuchRoom' | 'idTaken'> {
  if (roomId !== null && !(await findRoom(tx, scope, roomId))) return 'noSuchRoom'
  const content = { id, studioId: scope.studioId, name, roomId, idleMinutes, tokenHash }
  const { outcome } = await insertOnce(
    async () => void (await tx.insert(tablet).values({ ...content, createdAt: now, createdBy: scope.userId })),
    async () => {
      const { studioId, name: called, roomId: inRoom, idleMinutes: idle, tokenHash: token } = tablet
      const stored = { id: tablet.id, studioId, name: called, roomId: inRoom, idleMinutes: idle, tokenHash: token }
      return (await tx.select(stored).from(tablet).where(eq(tablet.id, id)))[0]
    },
    content,
  )
  return outcome
}

/** Unpairs a tablet and ends its sessions; another studio's, or one unpaired before, stays as it is. */
export async function endTablet(tx: DbExecutor, { studioId }: Scope, id: string, now: Date): Promise<void> {
  const own = and(eq(tablet.id, id), eq(tablet.studioId, studioId), isNull(tablet.endedAt))
  const [found] = await tx.select({ id: tablet.id }).from(tablet).where(own).for('update')
  if (!found) return
  await tx.update(tablet).set({ endedAt: now }).where(own)
  await tx.delete(session).where(eq(session.tabletId, id))
  announceSessionsEnded()
}

/** The tablets of a studio that are paired, by name. */
export const listTablets = (db: DbExecutor, { studioId }: Pick<Scope, 'studioId'>): Promise<SharedTablet[]> =>
  db
    .select({
      id: tablet.id,
      name: tablet.name,
      room: room.name,
      idleMinutes: tablet.idleMinutes,
      createdAt: tablet.createdAt,
      usedAt: tablet.usedAt,
    })
    .from(tablet)
    .leftJoin(room, eq(room.id, tablet.roomId))
    .where(and(eq(tablet.studioId, studioId), isNull(tablet.endedAt)))
    .orderBy(asc(tablet.name), asc(tablet.id))
