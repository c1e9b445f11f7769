import { type NextRequest, NextResponse } from 'next/server'
import { isReadableCall } from './server/platform/http/actionCall'

/**
 * Security headers for every page, with a nonce for its scripts; those of the routes, which answer with data, are in
 * `next.config.ts`. Whether someone is signed in, each page and route checks itself.
 */
export async function proxy(request: NextRequest): Promise<NextResponse> {
  if (!(await isReadableCall(request)))
    return new NextResponse('This cannot be read. Open the page anew, and try again.', { status: 400 })
  const nonce = btoa(crypto.randomUUID())
  const development = process.env.NODE_ENV === 'development'
  const policy = [
    `default-src 'self'`,
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${development ? ` 'unsafe-eval'` : ''}`,
    `style-src 'self' 'unsafe-inline'`,
    `img-src 'self' data:`,
    `font-src 'self'`,
    `connect-src 'self'${development ? ' ws:' : ''}`,
    `worker-src 'self'`,
    `object-src 'none'`,
    `base-uri 'none'`,
    `form-action 'self'`,
    `frame-ancestors 'none'`,
  ].join('; ')
  const headers = new Headers(request.headers)
  headers.set('x-nonce', nonce)
  headers.set('content-security-policy', policy)
  const response = NextResponse.next({ request: { headers } })
  response.headers.set('content-security-policy', policy)
  response.headers.set('x-content-type-options', 'nosniff')
  // The address of a member's own page or of an invitation opens it: it goes to no other site, index or shared cache.
  const isPrivate = /^\/(m|invited)\//.test(request.nextUrl.pathname)
  response.headers.set('referrer-policy', 'same-origin')
  if (isPrivate) {
    response.headers.set('x-robots-tag', 'noindex, nofollow, noarchive')
    response.headers.set('cache-control', 'private, no-store')
  }
  response.headers.set('x-frame-options', 'DENY')
  response.headers.set('permissions-policy', 'camera=(self), microphone=(), geolocation=()')
  return response
}

export const config = { matcher: ['/((?!api/|_next/static|_next/image|icon.svg).*)'] }
