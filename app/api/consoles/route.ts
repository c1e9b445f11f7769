import { can } from '@/server/platform/accounts/can'
import { currentUser, isSessionOn } from '@/server/platform/accounts/session'
import { relayEvents } from '@/server/platform/http/eventStream'
import { whileSignedIn } from '@/server/platform/http/whileSignedIn'

/** `GET /api/consoles`: the bikes' consoles as they come (docs/bike-console.md), for who takes notes. */
export async function GET(request: Request): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response(null, { status: 401 })
  if (!can(person, 'writeNotes')) return new Response(null, { status: 403 })
  return relayEvents(process.env.BIKE_CONSOLE_URL, whileSignedIn(request, isSessionOn))
}
