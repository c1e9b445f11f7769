import type { Metadata } from 'next'
import { afterProps } from '@/interface/classes/after/afterProps'
import { AfterView } from '@/interface/classes/after/AfterView'
import { classInfo } from '@/interface/classes/classInfo'
import { aloneItems } from '@/server/pages/classes/alone'
import { afterClass } from '@/server/pages/classes/after'
import { classPage } from '@/server/pages/classes/classPage'
import { can } from '@/server/platform/accounts/can'
import { database } from '@/server/platform/db/connection'
import { listColleagues } from '@/server/studio/people'

export const metadata: Metadata = { title: 'After the class' }

export default async function AfterPage({ params }: { params: Promise<{ id: string }> }) {
  const page = await classPage((await params).id, 'seeNotes')
  const [db, { person }, info] = [database(), page, classInfo(page)]
  const now = new Date()
  const data = afterProps(await afterClass(db, person, page.ofClass, now))
  const alone = await aloneItems(db, person, info.timeZone, now)
  const colleagues = await listColleagues(db, person)
  const maySetUp = can(person, 'setUpRiders')
  return <AfterView info={info} data={data} colleagues={colleagues} alone={alone} maySetUp={maySetUp} />
}
