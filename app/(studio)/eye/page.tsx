import type { Metadata } from 'next'
import { EyeView } from '@/interface/studio/EyeView'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { observerErrorOf } from '@/server/setups/learned'

export const metadata: Metadata = { title: 'Your eye' }

/** The error of the signed-in user's readings by eye against an instrument; of nobody else. */
export default async function EyePage() {
  const person = await requirePermission('setUpRiders')
  return <EyeView {...await observerErrorOf(database(), person)} />
}
