import { touchSession } from '@/server/platform/accounts/ownSessions'
import { currentSession } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

/** `POST /api/accounts/touched`: somebody uses the shared tablet whose session this is; 401 once it has locked. */
export async function POST(): Promise<Response> {
  const session = await currentSession()
  if (!session) return Response.json({ code: 'signedOut' }, { status: 401 })
  await touchSession(database(), session.sessionToken, new Date())
  return Response.json({ outcome: 'kept' })
}
