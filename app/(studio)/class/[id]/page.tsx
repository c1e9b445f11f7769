import type { Metadata } from 'next'
import { BeforeView } from '@/interface/classes/before/BeforeView'
import { classInfo } from '@/interface/classes/classInfo'
import { aloneItems } from '@/server/pages/classes/alone'
import { classPage } from '@/server/pages/classes/classPage'
import { floorBefore } from '@/server/pages/classes/floor'
import { can } from '@/server/platform/accounts/can'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Before the class' }

export default async function BeforePage({ params }: { params: Promise<{ id: string }> }) {
  const page = await classPage((await params).id, 'seeNumbers')
  const { person, ofClass, studio } = page
  const now = new Date()
  const seesNotes = can(person, 'seeNotes')
  return (
    <BeforeView
      info={classInfo(page)}
      floor={await floorBefore(database(), person, ofClass, seesNotes, now)}
      alone={await aloneItems(database(), person, studio.timeZone, now)}
      studio={studio.name}
      seesNotes={seesNotes}
      mayPlan={can(person, 'planClasses')}
      maySetUp={can(person, 'setUpRiders')}
    />
  )
}
