/** What is looked at before a request reaches the application: addresses that cannot be read, pages of other sites. */

const MAX_ADDRESS = 2000
const WRITES = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])
/** Headers in which a peer could claim to be another. */
const CLAIMS = ['x-forwarded-for', 'x-real-ip', 'forwarded', 'x-client-ip', 'true-client-ip', 'cf-connecting-ip']

/** Response text and header for a full disk. */
export const DISK_FULL =
  'The disk of the studio’s computer is full: nothing was written. Make room there, then try again.'
export const STORAGE_HEADER = 'x-storage'

/** Reason to reject a request, `{ status, text }`, or null. `isFull`: the disk has no room for writes. */
export function refusalOf({ method, url, headers }, isFull = false) {
  if (url.length > MAX_ADDRESS) return { status: 414, text: 'This address is too long.' }
  if (!isReadable(url)) return { status: 400, text: 'This address cannot be read. Perhaps it was cut short.' }
  // A page of another site cannot act here, also with the session's cookie.
  if (
    method !== 'GET' &&
    method !== 'HEAD' &&
    headers.origin !== undefined &&
    hostOf(headers.origin) !== headers.host
  ) {
    return { status: 403, text: 'This was sent by a page of another site.' }
  }
  // Sign-in stays possible: a session row is small, and reading needs it.
  if (isFull && WRITES.has(method) && !url.startsWith('/api/auth/')) return { status: 507, text: DISK_FULL }
  return null
}

/** Whether a path can be decoded and contains no control characters. */
function isReadable(url) {
  try {
    return !/[\u0000-\u001f\u007f]/.test(decodeURIComponent(url.split('?')[0]))
  } catch {
    return false
  }
}

function hostOf(origin) {
  try {
    return new URL(origin).host
  } catch {
    return null
  }
}

/**
 * Puts the true peer into `x-forwarded-for`, the one place the application reads it from, and takes out every other
 * claim. Only where the connection comes from `trustedProxy` (an address) is what that proxy added last believed.
 */
export function setPeer(request, trustedProxy) {
  const peer = request.socket.remoteAddress ?? 'unknown'
  const claimed = String(request.headers['x-forwarded-for'] ?? '')
    .split(',')
    .at(-1)
    .trim()
  for (const header of CLAIMS) delete request.headers[header]
  request.headers['x-forwarded-for'] = trustedProxy && peer === trustedProxy && claimed ? claimed : peer
}

/** Whether a request came by the proxy in front, and that speaks TLS: the public address says so. */
export function isBehindTls(request, { TRUSTED_PROXY, BETTER_AUTH_URL }) {
  return request.socket.remoteAddress === TRUSTED_PROXY && Boolean(BETTER_AUTH_URL?.startsWith('https:'))
}
