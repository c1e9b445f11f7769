import { can } from '@/server/accounts/can'
import { currentUser, isSessionOn } from '@/server/accounts/session'
import { relayEvents } from '@/server/http/eventStream'
import { whileSignedIn } from '@/server/http/whileSignedIn'

/** `GET /api/consoles`: the bikes' consoles as they come (docs/bike-console.md), for who takes notes. */
export async function GET(request: Request): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response(null, { status: 401 })
  if (!can(person, 'writeNotes')) return new Response(null, { status: 403 })
  return relayEvents(process.env.BIKE_CONSOLE_URL, whileSignedIn(request, isSessionOn))
}
