import { notFound, redirect } from 'next/navigation'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { mergedInto } from './members'

/** For pages of a member who is not there: redirects to the one they were merged into, else not found. */
export async function leaveForMerged(db: DbExecutor, scope: Scope, id: string, under = ''): Promise<never> {
  const into = await mergedInto(db, scope, id)
  return into ? redirect(`/riders/${into}${under}`) : notFound()
}
