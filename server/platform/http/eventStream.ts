/** Hands a device's bridge on as it comes: 404 where none is connected, 502 where it does not answer. */
export async function relayEvents(url: string | undefined, signal: AbortSignal): Promise<Response> {
  if (!url) return new Response(null, { status: 404 })
  try {
    const upstream = await fetch(url, { signal, headers: { accept: 'text/event-stream' } })
    if (!upstream.ok || !upstream.body) return new Response(null, { status: 502 })
    return new Response(upstream.body, {
      headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
    })
  } catch {
    return new Response(null, { status: 502 })
  }
}
