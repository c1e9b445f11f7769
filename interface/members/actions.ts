'use server'
import { formatNameRefusal, type NameRefusal } from '@/core/messages/members'
import { isEmail, MAX_NUMBER_LENGTH, readStature } from '@/core/openFiles/memberRow'
import { can } from '@/server/accounts/can'
import { authorize } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { isId, textOf } from '@/server/ids'
import * as members from '@/server/members/members'
import * as merges from '@/server/members/merge'
import type { MergePreview } from '@/server/members/merge'
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

/** What is typed of a member; a height that is left out stays. */
type TypedMember = Readonly<{ name: string; number: string; email: string; height?: string }>

/** Changes a member's record, given the record as it was when the page was opened. */
export async function changeMember(from: members.MemberRecord, typed: TypedMember): Promise<ActionResult> {
  const person = await authorize('addMembers')
  if (!person) return refused({ code: 'notAllowed' })
  const before = recordFrom(from)
  if (!before) return refused({ code: 'malformed' })
  const name = checkName(typed?.name)
  if (typeof name !== 'string') return refused(name)
  const [number, email, height] = [typed.number, typed.email, typed.height].map((text) => textOf(text).trim())
  if (number.length > MAX_NUMBER_LENGTH) return refused({ code: 'numberTooLong' })
  if (email !== '' && !isEmail(email)) return refused({ code: 'notAnEmail' })
  const db = database()
  // Heights are not shown to everybody: who sees none leaves it as it is.
  const seesBody = can(person, 'seeNotes')
  const hidden = seesBody ? null : await members.findMember(db, person, before.id)
  const shown = { ...before, statureMm: hidden ? hidden.statureMm : before.statureMm }
  const typedMm = seesBody && typed.height !== undefined && height !== '' ? readStature(height) : null
  if (seesBody && height !== '' && typedMm === null) return refused({ code: 'notAHeight' })
  const statureMm = seesBody && typed.height !== undefined ? typedMm : shown.statureMm
  const to = { name, number: number || null, email: email || null, statureMm }
  switch ((await members.changeMember(db, person, shown, to)).outcome) {
    case 'kept':
      return { outcome: 'kept' }
    case 'gone':
      return refused({ code: 'noSuchMember' })
    case 'changed':
      return refused({ code: 'changedMeanwhile' })
    case 'numberTaken':
      return refused({ code: 'numberTaken', number })
  }
}

function recordFrom(sent: unknown): members.MemberRecord | null {
  const { id, name, number, email, statureMm } = (sent ?? {}) as members.MemberRecord
  const isText = (value: unknown) => value === null || typeof value === 'string'
  const isLength = statureMm === null || typeof statureMm === 'number'
  if (!isId(id) || typeof name !== 'string' || !isText(number) || !isText(email) || !isLength) return null
  return { id, name, number, email, statureMm }
}

/** What merging a member into another would move. Nothing is written. */
export async function previewMerge(from: string, into: string): Promise<ActionResult<{ preview: MergePreview }>> {
  const person = await authorize('manageStudio')
  if (!person) return refused({ code: 'notAllowed' })
  if (!isId(from) || !isId(into)) return refused({ code: 'malformed' })
  if (from === into) return refused({ code: 'sameMember' })
  const preview = await merges.previewMerge(database(), person, { from, into })
  return preview ? { outcome: 'kept', preview } : refused({ code: 'noSuchMember' })
}

/** Merges a member into another, for good. */
export async function mergeMembers(from: string, into: string): Promise<ActionResult> {
  const person = await authorize('manageStudio')
  if (!person) return refused({ code: 'notAllowed' })
  if (!isId(from) || !isId(into)) return refused({ code: 'malformed' })
  const { outcome } = await merges.mergeMembers(database(), person, { from, into }, new Date())
  if (outcome === 'kept') return { outcome }
  // Sent again after the answer was lost: it is done.
  if (outcome === 'gone' && (await merges.mergedInto(database(), person, from)) === into) return { outcome: 'kept' }
  return refused({ code: outcome === 'same' ? 'sameMember' : 'noSuchMember' })
}

/** Members whose name holds every word typed, the first forty. */
export async function findMembers(typed: string): Promise<readonly members.Member[]> {
  const person = await authorize('seeNumbers')
  if (!person) return []
  return members.findMembers(database(), person, textOf(typed).slice(0, MAX_SEARCH_LENGTH), MAX_FOUND)
}
