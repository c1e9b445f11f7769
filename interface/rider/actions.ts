'use server'
import { formatActionRefusal } from '@/core/messages/actions'
import { CHANGES, type Change } from '@/core/register/entry'
import type { Source } from '@/core/translate/translate'
import { authorize, type CurrentUser } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { openLink, revokeLinks } from '@/server/memberPage/links'
import { handleMessage as markHandled } from '@/server/memberPage/messages'
import { keepChange, keepTape, keepTranslation, type ProposalResult } from '@/server/register/proposals'
import { listEntries, restoreEntry } from '@/server/register/register'
import { getStudio } from '@/server/studio/studio'
import type { ActionResult } from '../shared/actionResult'
import { timelineEntries, type TimelineEntry } from './timelineEntry'

const refused = (code: Parameters<typeof formatActionRefusal>[0]['code'] & ('notAllowed' | 'malformed')) =>
  ({ outcome: 'refused', say: formatActionRefusal({ code }) }) as const

const SAID = { gone: 'noSuchNumbers', idTaken: 'idTaken', stale: 'numbersChanged' } as const

async function keep(write: (person: CurrentUser) => Promise<ProposalResult>): Promise<ActionResult> {
  const person = await authorize('setUpRiders')
  if (!person) return refused('notAllowed')
  const result = await write(person)
  if (result.outcome === 'kept') return { outcome: 'kept' }
  const say = result.outcome === 'refused' ? result.say : formatActionRefusal({ code: SAID[result.outcome] })
  return { outcome: 'refused', say }
}

/** Goes back to an earlier set of numbers, under an id the caller made. */
export async function restoreNumbers(id: string, entryId: string): Promise<ActionResult> {
  if (!isId(id) || !isId(entryId)) return refused('malformed')
  return keep((person) => restoreEntry(database(), person, { id, entryId }, new Date()))
}

/** Keeps numbers for another type as well, worked out on the server. */
export async function keepForType(id: string, entryId: string, lineId: string): Promise<ActionResult> {
  if (!isId(id) || !isId(entryId) || !isId(lineId)) return refused('malformed')
  return keep((person) => keepTranslation(database(), person, { id, entryId, lineId }, new Date()))
}

/** Types at once; a studio has a handful. */
const MAX_PARTS = 40

/** Keeps what a rider's own bike amounts to on some types. */
export async function keepFromTape(
  memberId: string,
  from: Extract<Source, { crankMm: number }>,
  parts: readonly Readonly<{ id: string; lineId: string }>[],
): Promise<ActionResult> {
  const sized = Array.isArray(parts) && parts.length <= MAX_PARTS
  if (!isId(memberId) || !sized || !parts.every((part) => isId(part?.id) && isId(part.lineId)))
    return refused('malformed')
  return keep((person) => keepTape(database(), person, { memberId, from, parts }, new Date()))
}

/** Keeps what a change of shoes or bike makes of a rider's numbers. */
export async function keepAfterChange(
  memberId: string,
  what: Change,
  mm: number,
  parts: readonly Readonly<{ id: string; entryId: string }>[],
): Promise<ActionResult> {
  const sized = Array.isArray(parts) && parts.length <= MAX_PARTS
  const known = isId(memberId) && CHANGES.includes(what) && Number.isFinite(mm)
  if (!known || !sized || !parts.every((part) => isId(part?.id) && isId(part.entryId))) return refused('malformed')
  return keep((person) => keepChange(database(), person, { memberId, what, mm, parts }, new Date()))
}

/** The time line from before an entry on; empty where there is none, or the role sees no numbers. */
export async function earlierEntries(memberId: string, before: string): Promise<readonly TimelineEntry[]> {
  const person = await authorize('seeNumbers')
  if (!person || !isId(memberId) || !isId(before)) return []
  const db = database()
  const { timeZone } = await getStudio(db, person)
  return timelineEntries(await listEntries(db, person, memberId, { before }), timeZone)
}

/** Makes a link to a member's own page, or hands on the one that opens. */
export async function openOwnPage(memberId: string): Promise<ActionResult> {
  const person = await authorize('setUpRiders')
  if (!person) return refused('notAllowed')
  const link = isId(memberId) ? await openLink(database(), person, memberId, new Date()) : null
  return link ? { outcome: 'kept' } : { outcome: 'refused', say: formatActionRefusal({ code: 'noSuchMember' }) }
}

/** Ends every link to a member's own page. */
export async function revokeOwnPage(memberId: string): Promise<ActionResult> {
  const person = await authorize('setUpRiders')
  if (!person) return refused('notAllowed')
  if (!isId(memberId)) return refused('malformed')
  await revokeLinks(database(), person, memberId, new Date())
  return { outcome: 'kept' }
}

/** Says that what a member wrote from their page was seen to. */
export async function handleMessage(id: string): Promise<ActionResult> {
  const person = await authorize('writeNotes')
  if (!person) return refused('notAllowed')
  if (!isId(id)) return refused('malformed')
  await markHandled(database(), person, id, new Date())
  return { outcome: 'kept' }
}
