import type { Metadata } from 'next'
import { classInfo } from '@/interface/classes/classInfo'
import { BlocksView } from '@/interface/classes/plan/BlocksView'
import { otherPlans } from '@/interface/classes/plan/otherPlans'
import { listPlansAround } from '@/server/classes/classes'
import { classPage } from '@/server/pages/classes/classPage'
import { can } from '@/server/platform/accounts/can'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Plan of the class' }

export default async function BlocksPage({ params }: { params: Promise<{ id: string }> }) {
  const page = await classPage((await params).id, 'seeNotes')
  const plans = await listPlansAround(database(), page.person, page.ofClass)
  return (
    <BlocksView
      info={classInfo(page)}
      mayPlan={can(page.person, 'planClasses')}
      others={otherPlans(plans, page.studio.timeZone)}
    />
  )
}
