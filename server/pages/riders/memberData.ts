import { describeMemberFile, type MemberFilePart } from '../../../core/messages/riders/memberFile'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { memberFile } from '../../privacy/memberFile'

/** All that is stored about one member, in words. */
export type MemberDataPage = Readonly<{ memberId: string; name: string; parts: readonly MemberFilePart[] }>

/** The page; null where the studio has no such member. */
export async function memberDataPage(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  now: Date,
): Promise<MemberDataPage | null> {
  const file = await memberFile(db, scope, memberId, now)
  if (!file) return null
  return { memberId, name: file.rows.members[0].name, parts: describeMemberFile(file.rows, file.names) }
}
