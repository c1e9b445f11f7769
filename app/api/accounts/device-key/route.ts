import { deviceKeyOf } from '@/server/platform/accounts/deviceKey'
import { currentSession } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

/** `GET /api/accounts/device-key`: the key that locks entries on devices of the session's user; 401 signed out. */
export async function GET(): Promise<Response> {
  const headers = { 'cache-control': 'no-store' }
  const session = await currentSession()
  if (!session) return Response.json({ code: 'signedOut' }, { status: 401, headers })
  return Response.json({ userId: session.userId, key: await deviceKeyOf(database(), session) }, { headers })
}
