import { readAuthority } from '@/server/studio/trust'

/** The studio's own certificate authority, as a file that devices know how to install. */
export async function GET(): Promise<Response> {
  const authority = await readAuthority()
  if (!authority) return new Response('This studio has no certificate authority of its own.', { status: 404 })
  return new Response(authority.der, { headers: { 'content-type': 'application/x-x509-ca-cert' } })
}
