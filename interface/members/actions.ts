'use server'
import { formatNameRefusal, type NameRefusal } from '@/core/messages/members'
import { authorize } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { isId, textOf } from '@/server/ids'
import * as members from '@/server/members/members'
import { normalizeName } from '@/server/members/normalizeName'
import type { ActionResult } from '../shared/actionResult'

/** A refusal may offer a way on: add another one of that name, or correct the name an earlier try was kept under. */
export type MemberResult = ActionResult<{ id: string }, { offer?: 'addAnyway' | 'correct'; as?: string }>

const refused = (refusal: NameRefusal) => ({ outcome: 'refused', say: formatNameRefusal(refusal) }) as const
/** Names offered at once; a few letters more find the rest. */
const MAX_FOUND = 40
const MAX_SEARCH_LENGTH = 100

function checkName(typed: unknown): string | NameRefusal {
  if (typeof typed !== 'string') return { code: 'malformed' }
  const name = normalizeName(typed)
  if (name === '') return { code: 'empty' }
  return name.length > members.MAX_NAME_LENGTH ? { code: 'tooLong', maxLength: members.MAX_NAME_LENGTH } : name
}

/** Adds a member under an id the caller made. `anyway` adds a second one of the same name. */
export async function addMember(id: string, typed: string, anyway: boolean): Promise<MemberResult> {
  const person = await authorize('addMembers')
  if (!person) return refused({ code: 'notAllowed' })
  const name = checkName(typed)
  if (typeof name !== 'string') return refused(name)
  if (!isId(id) || id.length !== 36) return refused({ code: 'malformed' })
  const db = database()
  const same = (await members.findMembersByName(db, person, name)).filter((member) => member.id !== id)
  if (same.length > 0 && anyway !== true) return { ...refused({ code: 'sameName', name }), offer: 'addAnyway' }
  const added = await members.addMember(db, person, { id, name }, new Date())
  if (added.outcome === 'kept') return { outcome: 'kept', id }
  // The id stands for nobody of this studio.
  if (added.name === '') return refused({ code: 'malformed' })
  return { ...refused({ code: 'addedBefore', name, as: added.name }), offer: 'correct', as: added.name }
}

/** Corrects the name under which an earlier try was kept. */
export async function renameMember(id: string, from: string, typed: string): Promise<MemberResult> {
  const person = await authorize('addMembers')
  if (!person) return refused({ code: 'notAllowed' })
  const to = checkName(typed)
  if (typeof to !== 'string') return refused(to)
  if (!isId(id) || typeof from !== 'string') return refused({ code: 'malformed' })
  const renamed = await members.renameMember(database(), person, id, { from, to })
  return renamed ? { outcome: 'kept', id } : refused({ code: 'renamedMeanwhile' })
}

/** Members whose name holds every word typed, the first forty. */
export async function findMembers(typed: string): Promise<readonly members.Member[]> {
  const person = await authorize('seeNumbers')
  if (!person) return []
  return members.findMembers(database(), person, textOf(typed).slice(0, MAX_SEARCH_LENGTH), MAX_FOUND)
}
