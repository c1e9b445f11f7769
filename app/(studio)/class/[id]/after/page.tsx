import type { Metadata } from 'next'
import { AfterView } from '@/interface/class/AfterView'
import { classPage } from '@/interface/class/classPage'
import { can } from '@/server/accounts/can'
import { afterClass } from '@/server/pages/after'
import { database } from '@/server/db/connection'
import { listTeachers } from '@/server/studio/people'

export const metadata: Metadata = { title: 'After the class' }

export default async function AfterPage({ params }: { params: Promise<{ id: string }> }) {
  const { person, ofClass, info } = await classPage((await params).id, 'seeNotes')
  const db = database()
  const data = await afterClass(db, person, ofClass, new Date())
  const colleagues = can(person, 'writeNotes') ? await listTeachers(db, person) : []
  return (
    <AfterView
      info={info}
      data={data}
      colleagues={colleagues.flatMap(({ id, name }) => (id === person.userId ? [] : [{ id, name }]))}
    />
  )
}
