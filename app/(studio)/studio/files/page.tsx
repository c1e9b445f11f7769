import type { Metadata } from 'next'
import { FilesView } from '@/interface/studio/files/FilesView'
import { OtherStudios } from '@/interface/studio/files/OtherStudios'
import { otherStudiosProps } from '@/interface/studio/files/otherStudiosProps'
import { filesPage } from '@/server/pages/studio/files'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Files' }

export default async function FilesPage() {
  const person = await requirePermission('manageStudio')
  const page = await filesPage(database(), person, new Date())
  return (
    <FilesView>
      <OtherStudios {...otherStudiosProps(page)} />
    </FilesView>
  )
}
