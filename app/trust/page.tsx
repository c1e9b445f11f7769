import type { Metadata } from 'next'
import { TrustPage } from '@/interface/studio/devices/TrustPage'
import { readAuthority } from '@/server/studio/trust'

export const metadata: Metadata = { title: 'Trust this studio' }

/** Shown without TLS and before anybody is signed in: how a device is made to trust the studio's own certificate. */
export default async function TrustRoute() {
  const authority = await readAuthority()
  return <TrustPage fingerprint={authority?.fingerprint ?? null} address={process.env.BETTER_AUTH_URL ?? '/'} />
}
