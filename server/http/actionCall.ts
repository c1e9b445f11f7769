/** Values that a page writes into plain text for itself: the others need parts of a form. */
const PLAIN = /^\$(\$|D|n|undefined$|NaN$|Infinity$|-Infinity$|-0$)/
/** Deeper nothing is nested that a page sends. */
const DEEPEST = 60

/**
 * Whether the body of a call of a server action can be read; true for every other request. The framework answers one
 * that cannot with a fault of its own.
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
  return depth < DEEPEST && Object.values(value).every((one) => isPlain(one, depth + 1))
}
