import type { DbExecutor } from '../../server/platform/db/connection'
import { consent } from '../../server/riders/tables'
import { INSTRUCTORS, STUDIO } from '../netloftHall'

/** These members agreed to notes at their first visit, by word. */
export async function agreed(db: DbExecutor, memberIds: readonly string[], now: Date): Promise<void> {
  await db.insert(consent).values(
    memberIds.map((memberId, i) => ({
      id: `agreed-${memberId}`,
      studioId: STUDIO.id,
      memberId,
      wordingVersion: 1,
      way: 'spoken' as const,
      createdAt: new Date(now.getTime() - (70 - (i % 20)) * 86_400_000),
      createdBy: INSTRUCTORS[i % 2].id,
    })),
  )
}
