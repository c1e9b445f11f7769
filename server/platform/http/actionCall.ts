/** Encoded values that a plain-text body can contain; other `$` references need a multipart body. */
const PLAIN = /^\$(\$|D|n|undefined$|NaN$|Infinity$|-Infinity$|-0$)/
/** Maximum nesting of an argument. */
const MAX_DEPTH = 60

/**
 * Whether the body of a server action call can be decoded; true for all other requests. The framework would respond to
 * an undecodable body with status 500.
 */
export async function isReadableCall(request: Request): Promise<boolean> {
  if (request.method !== 'POST' || !request.headers.has('next-action')) return true
  const kind = request.headers.get('content-type') ?? ''
  try {
    if (kind.startsWith('multipart/form-data')) return (await request.clone().formData()) !== null
    return isCall(JSON.parse(await request.clone().text()))
  } catch {
    return false
  }
}

const isCall = (sent: unknown): boolean => Array.isArray(sent) && isPlain(sent, 0)

function isPlain(value: unknown, depth: number): boolean {
  if (typeof value === 'string') return !value.startsWith('$') || PLAIN.test(value)
  if (typeof value !== 'object' || value === null) return true
  return depth < MAX_DEPTH && Object.values(value).every((one) => isPlain(one, depth + 1))
}
