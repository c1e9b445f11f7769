import type { Metadata } from 'next'
import { StudioView } from '@/interface/studio/StudioView'
import { studioPage } from '@/server/pages/studio/studio'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Studio' }

export default async function StudioRoute() {
  const person = await requirePermission('manageStudio')
  return <StudioView {...await studioPage(database(), person)} />
}
