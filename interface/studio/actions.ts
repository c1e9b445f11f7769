'use server'
import { formatActionRefusal } from '@/core/messages/actions'
import { settingsIssues } from '@/core/operations/dispatch'
import type { EarlierSetup } from '@/core/recommend/riderHistory'
import type { StudioSettings } from '@/core/operations/studioSettings'
import { authorize } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { listHistory } from '@/server/setups/setups'
import { changeStudio } from '@/server/studio/studio'
import type { ActionResult } from '../shared/actionResult'

/** Changes how the studio sets riders up, from now on. Sent again it changes nothing. */
export async function saveStudio(settings: StudioSettings): Promise<ActionResult> {
  const person = await authorize('manageStudio')
  if (!person) return { outcome: 'refused', say: formatActionRefusal({ code: 'notAllowed' }) }
  const issues = settingsIssues(settings)
  if (issues.length > 0) return { outcome: 'refused', say: formatActionRefusal({ code: 'readingIssues', issues }) }
  await changeStudio(database(), person, settings)
  return { outcome: 'kept' }
}

/** What is known of a member, to hold schools beside each other; empty where nobody set them up yet. */
export async function historyOf(memberId: string): Promise<ActionResult<{ history: readonly EarlierSetup[] }>> {
  const person = await authorize('manageStudio')
  if (!person) return { outcome: 'refused', say: formatActionRefusal({ code: 'notAllowed' }) }
  if (!isId(memberId)) return { outcome: 'refused', say: formatActionRefusal({ code: 'noSuchMember' }) }
  return { outcome: 'kept', history: await listHistory(database(), person, memberId, new Date()) }
}
