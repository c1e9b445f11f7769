import type { Metadata } from 'next'
import { BeforeView } from '@/interface/class/BeforeView'
import { classPage } from '@/interface/class/classPage'
import { can } from '@/server/accounts/can'
import { floorBefore } from '@/server/pages/floor'
import { database } from '@/server/db/connection'

export const metadata: Metadata = { title: 'Before the class' }

export default async function BeforePage({ params }: { params: Promise<{ id: string }> }) {
  const { person, ofClass, info, studio } = await classPage((await params).id, 'seeNumbers')
  const seesNotes = can(person, 'seeNotes')
  const floor = await floorBefore(database(), person, ofClass, seesNotes, new Date())
  return (
    <BeforeView
      info={info}
      floor={floor}
      studio={studio.name}
      seesNotes={seesNotes}
      mayPlan={can(person, 'planClasses')}
      maySetUp={can(person, 'setUpRiders')}
    />
  )
}
