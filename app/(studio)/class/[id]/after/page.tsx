import type { Metadata } from 'next'
import { afterProps } from '@/interface/classes/after/afterProps'
import { AfterView } from '@/interface/classes/after/AfterView'
import { classInfo } from '@/interface/classes/classInfo'
import { afterClass } from '@/server/pages/classes/after'
import { classPage } from '@/server/pages/classes/classPage'
import { can } from '@/server/platform/accounts/can'
import { database } from '@/server/platform/db/connection'
import { listColleagues } from '@/server/studio/people'

export const metadata: Metadata = { title: 'After the class' }

export default async function AfterPage({ params }: { params: Promise<{ id: string }> }) {
  const page = await classPage((await params).id, 'seeNotes')
  const [db, { person }] = [database(), page]
  const data = afterProps(await afterClass(db, person, page.ofClass, new Date()))
  const colleagues = await listColleagues(db, person)
  return <AfterView info={classInfo(page)} data={data} colleagues={colleagues} maySetUp={can(person, 'setUpRiders')} />
}
