import type { Metadata } from 'next'
import { FilesView } from '@/interface/studio/files/FilesView'
import { requirePermission } from '@/server/platform/accounts/session'

export const metadata: Metadata = { title: 'Files' }

export default async function FilesPage() {
  await requirePermission('manageStudio')
  return <FilesView />
}
