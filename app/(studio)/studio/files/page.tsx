import type { Metadata } from 'next'
import { FilesView } from '@/interface/files/FilesView'
import { requirePermission } from '@/server/accounts/session'

export const metadata: Metadata = { title: 'Files' }

export default async function FilesPage() {
  await requirePermission('manageStudio')
  return <FilesView />
}
