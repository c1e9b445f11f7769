import type { Metadata } from 'next'
import { CuesView } from '@/interface/classes/cues/CuesView'
import { requirePermission } from '@/server/platform/accounts/session'
import { listOwnCues } from '@/server/classes/watch'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Cues' }

export default async function CuesPage() {
  const person = await requirePermission('planClasses')
  return <CuesView own={await listOwnCues(database(), person)} />
}
