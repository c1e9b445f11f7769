import { formatRefusal } from '@/core/messages/refusals'
import { callerOf } from '@/server/platform/accounts/apiKeys'
import { refused } from '@/server/commands/defineCommand'
import { COMMANDS } from '@/server/commands/registry'
import { runCommand } from '@/server/commands/runCommand'
import { database } from '@/server/platform/db/connection'
import { readJson } from '@/server/platform/http/readJson'

/** Longest request read, bytes: a file of types or a timetable. */
const MAX_BODY_LENGTH = 2_500_000

/**
 * `POST /api/v1/commands/<name>`: `{ id, input }`, for who is signed in, or has a key. 200 carried out, 422 refused
 * with code and sentence, 401 signed out, 403 role, scope of the key or origin, 404 no such command.
 */
export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  const caller = await callerOf(database(), request, new Date())
  if (!caller) return Response.json({ outcome: 'signedOut' }, { status: 401 })
  const { name } = await params
  if (caller.may === 'operations') return Response.json({ outcome: 'notAllowed' }, { status: 403 })
  if (!Object.hasOwn(COMMANDS, name)) return Response.json({ outcome: 'noSuchCommand' }, { status: 404 })
  const read = await readJson(request, MAX_BODY_LENGTH)
  if (read.outcome === 'refused')
    return Response.json({ ...refused({ code: 'malformed' }), say: read.reason }, { status: read.status })
  const { id, input } = (read.body ?? {}) as Readonly<{ id: string; input: unknown }>
  const outcome = await runCommand(database(), caller.scope, { name, id, input }, new Date())
  if (outcome.outcome === 'kept') return Response.json(outcome)
  const status = outcome.code === 'notAllowed' ? 403 : 422
  return Response.json({ ...outcome, say: formatRefusal(outcome) }, { status })
}
