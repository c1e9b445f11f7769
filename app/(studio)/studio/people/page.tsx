import type { Metadata } from 'next'
import { PeopleView } from '@/interface/studio/people/PeopleView'
import { peoplePage } from '@/server/pages/studio/people'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'People' }

export default async function PeopleRoute() {
  const person = await requirePermission('manageStudio')
  return <PeopleView {...await peoplePage(database(), person, new Date())} />
}
