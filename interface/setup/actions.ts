'use server'
import { SETUP_REFUSAL_TEXT } from '@/core/messages/actions'
import { settingsIssues } from '@/core/operations/dispatch'
import type { School } from '@/core/school/school'
import { authorize } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { changeSetupSchool as recordSetupSchool } from '@/server/setups/setupSchool'
import { MAX_ROWS, type StoredEvidence } from '@/server/setups/evidence'
import * as setups from '@/server/setups/setups'
import type { ActionResult } from '../shared/actionResult'

type Started = ActionResult<{ id: string }>

const refused = (why: keyof typeof SETUP_REFUSAL_TEXT) =>
  ({ outcome: 'refused', say: SETUP_REFUSAL_TEXT[why] }) as const

/** Starts a set-up of a member on a bike, or takes up the one left open there. */
export async function startSetup(memberId: string, bikeId: string): Promise<Started> {
  const person = await authorize('setUpRiders')
  if (!person) return refused('notAllowed')
  if (!isId(memberId) || !isId(bikeId)) return refused('start')
  const started = { id: crypto.randomUUID(), memberId, bikeId }
  const result = await setups.startSetup(database(), person, started, new Date())
  return result.outcome === 'kept' ? result : refused('start')
}

/** Records that this one set-up goes by another school than the studio's, from now on. */
export async function changeSetupSchool(id: string, setupId: string, school: Partial<School>): Promise<ActionResult> {
  const person = await authorize('setUpRiders')
  if (!person) return refused('notAllowed')
  const issues = settingsIssues({ school, costs: {}, learns: true })
  if (!isId(id) || !isId(setupId) || issues.length > 0) return refused('school')
  const { outcome } = await recordSetupSchool(database(), person, { id, setupId, school }, new Date())
  return outcome === 'kept' ? { outcome } : refused('school')
}

/** Starts a new set-up of the same rider on the same bike from rows of one that somebody else saved meanwhile. */
export async function continueSetup(setupId: string, rows: readonly StoredEvidence[]): Promise<Started> {
  const person = await authorize('setUpRiders')
  if (!person) return refused('notAllowed')
  const sized = Array.isArray(rows) && rows.length <= MAX_ROWS && rows.every((r) => isId(r?.id))
  if (!isId(setupId) || !sized) return refused('continue')
  const result = await setups.continueSetup(database(), person, { setupId, rows }, new Date())
  return result.outcome === 'kept' ? result : refused('continue')
}
