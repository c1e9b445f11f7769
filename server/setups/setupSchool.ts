import { and, desc, eq } from 'drizzle-orm'
import type { School } from '../../core/base/school/school'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { insertOnce } from '../platform/db/insertOnce'
import { setupSchool } from './tables'
import { findSetup } from './setups'

/** Where a set-up goes by another school than the studio's: its latest value, or nothing. */
export async function findSetupSchool(db: DbExecutor, scope: Scope, setupId: string): Promise<Partial<School>> {
  const [found] = await db
    .select({ school: setupSchool.school })
    .from(setupSchool)
    .where(and(eq(setupSchool.setupId, setupId), eq(setupSchool.studioId, scope.studioId)))
    .orderBy(desc(setupSchool.position))
    .limit(1)
  return found?.school ?? {}
}

export type SetupSchoolResult = Readonly<{ outcome: 'kept' | 'gone' | 'idTaken' }>

/**
 * Records that an open set-up goes by another school from now on: who, when and what. Sent again it changes nothing.
 */
export async function changeSetupSchool(
  db: DbExecutor,
  scope: Scope,
  changed: Readonly<{ id: string; setupId: string; school: Partial<School> }>,
  now: Date,
): Promise<SetupSchoolResult> {
  const found = await findSetup(db, scope, changed.setupId)
  if (!found || found.finishedAt) return { outcome: 'gone' }
  const content = { ...changed, studioId: scope.studioId }
  const columns = { id: setupSchool.id, setupId: setupSchool.setupId, school: setupSchool.school }
  const stored = async () =>
    (
      await db
        .select({ ...columns, studioId: setupSchool.studioId })
        .from(setupSchool)
        .where(eq(setupSchool.id, changed.id))
    )[0]
  return insertOnce(
    () => db.insert(setupSchool).values({ ...content, createdAt: now, createdBy: scope.userId }),
    stored,
    content,
  )
}
