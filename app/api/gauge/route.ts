import { can } from '@/server/platform/accounts/can'
import { currentUser, isSessionOn } from '@/server/platform/accounts/session'
import { relayEvents } from '@/server/platform/http/eventStream'
import { whileSignedIn } from '@/server/platform/http/whileSignedIn'

/** `GET /api/gauge`: the angle gauge's events as they come (docs/angle-gauge.md), for who sets riders up. */
export async function GET(request: Request): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response(null, { status: 401 })
  if (!can(person, 'setUpRiders')) return new Response(null, { status: 403 })
  return relayEvents(process.env.ANGLE_GAUGE_URL, whileSignedIn(request, isSessionOn))
}
