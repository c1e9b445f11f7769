import { formatRefusal } from '@/core/messages/refusals'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { readJson } from '@/server/platform/http/readJson'
import type { OutboxEntry } from '@/server/platform/entry'
import { takeEntry } from '@/server/commands/takeEntry'

/** Longest entry read, bytes: one row of evidence, one note. */
const MAX_BODY_LENGTH = 20_000

/**
 * `POST /api/outbox`: one entry of a device's outbox. 200 stored, 422 refused with its reason in words, 401 signed out,
 * 409 somebody else is signed in than who made it.
 */
export async function POST(request: Request): Promise<Response> {
  const person = await currentUser()
  if (!person) return Response.json({ outcome: 'signedOut' }, { status: 401 })
  const read = await readJson(request, MAX_BODY_LENGTH)
  if (read.outcome === 'refused')
    return Response.json({ code: 'malformed', say: read.reason }, { status: read.status === 403 ? 403 : 422 })
  const entry = (read.body ?? {}) as OutboxEntry
  if (entry.author !== person.userId) return Response.json({ outcome: 'otherPerson' }, { status: 409 })
  const delivered = await takeEntry(database(), person, entry, new Date())
  if (delivered.outcome === 'kept') return Response.json(delivered)
  return Response.json({ code: delivered.code, say: formatRefusal(delivered) }, { status: 422 })
}
