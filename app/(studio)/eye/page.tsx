import type { Metadata } from 'next'
import { EyeView } from '@/interface/studio/EyeView'
import { requirePermission } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { observerErrorOf } from '@/server/setups/learned'

export const metadata: Metadata = { title: 'Your eye' }

/** What one's own eye reads beside an instrument; of whoever is signed in, and of nobody else. */
export default async function EyePage() {
  const person = await requirePermission('setUpRiders')
  return <EyeView {...await observerErrorOf(database(), person)} />
}
