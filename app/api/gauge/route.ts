import { can } from '@/server/accounts/can'
import { currentUser } from '@/server/accounts/session'

/** The gauge's bridge on this machine, where one is connected (docs/angle-gauge.md). */
const gaugeUrl = (): string | undefined => process.env.ANGLE_GAUGE_URL

/** `GET /api/gauge`: the angle gauge's server-sent events handed on as they come, for who sets riders up. */
export async function GET(request: Request): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response(null, { status: 401 })
  if (!can(person, 'setUpRiders')) return new Response(null, { status: 403 })
  const url = gaugeUrl()
  if (!url) return new Response(null, { status: 404 })
  try {
    const upstream = await fetch(url, { signal: request.signal, headers: { accept: 'text/event-stream' } })
    if (!upstream.ok || !upstream.body) return new Response(null, { status: 502 })
    return new Response(upstream.body, {
      headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
    })
  } catch {
    return new Response(null, { status: 502 })
  }
}
