import type { Member } from '@/server/riders/members/members'
import { query } from '../../commands/command'

/** Members whose name has every word typed; none where the role sees no numbers. */
export async function findMembers(typed: string): Promise<readonly Member[]> {
  const answer = await query('members.findMembers', { typed })
  return answer.outcome === 'found' ? answer.members : []
}
