export type ReadJson =
  | Readonly<{ outcome: 'read'; body: unknown }>
  | Readonly<{ outcome: 'refused'; status: 400 | 403 | 413 | 415; reason: string }>

/**
 * Reads a request's JSON. Refused when it comes from another site's page (`Origin`), has another content type, is
 * longer than `mostBytes` (reading stops there), or is none.
 */
export async function readJson(request: Request, mostBytes: number): Promise<ReadJson> {
  if (!fromHere(request)) return { outcome: 'refused', status: 403, reason: 'comes from another site' }
  const type = request.headers.get('content-type')?.split(';')[0].trim().toLowerCase()
  if (type !== 'application/json')
    return { outcome: 'refused', status: 415, reason: 'must be sent as application/json' }
  const text = await textOf(request, mostBytes)
  if (text === null) return { outcome: 'refused', status: 413, reason: `is too long: at most ${mostBytes} bytes` }
  try {
    return { outcome: 'read', body: JSON.parse(text) }
  } catch {
    return { outcome: 'refused', status: 400, reason: 'this is not JSON' }
  }
}

/** Whether a request was sent by a page of this server, or by no page at all (no `Origin`). */
export function fromHere(request: Request): boolean {
  const origin = request.headers.get('origin')
  if (origin === null) return true
  try {
    return new URL(origin).host === request.headers.get('host')
  } catch {
    return false
  }
}

async function textOf(request: Request, mostBytes: number): Promise<string | null> {
  if (!request.body || Number(request.headers.get('content-length') ?? 0) > mostBytes) return request.body ? null : ''
  const decoder = new TextDecoder()
  let text = ''
  let bytes = 0
  for await (const chunk of request.body as unknown as AsyncIterable<Uint8Array>) {
    bytes += chunk.byteLength
    if (bytes > mostBytes) return null
    text += decoder.decode(chunk, { stream: true })
  }
  return text + decoder.decode()
}
