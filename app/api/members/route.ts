import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { findWithNumbers } from '@/server/setups/findWithNumbers'

/** Longest text looked for; a name is never longer. */
const MAX_SEARCH_LENGTH = 100

/** `GET /api/members?find=kes`: the first members with a word that begins so, and their numbers. */
export async function GET(request: Request): Promise<Response> {
  const person = await currentUser()
  if (!person) return Response.json({ members: [] }, { status: 401 })
  if (!can(person, 'seeNumbers')) return Response.json({ members: [] }, { status: 403 })
  const typed = (new URL(request.url).searchParams.get('find') ?? '').slice(0, MAX_SEARCH_LENGTH)
  const members = await findWithNumbers(database(), person, typed)
  return Response.json({ members }, { headers: { 'cache-control': 'no-store' } })
}
