import type { Metadata } from 'next'
import { studioDay } from '@/core/messages/words/dates'
import { BringIn } from '@/interface/riders/bringIn/BringIn'
import { can } from '@/server/platform/accounts/can'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'A rider’s own file' }

export default async function BringInPage() {
  const person = await requirePermission('setUpRiders')
  const { timeZone } = await getStudio(database(), person)
  const today = studioDay(new Date(), timeZone)
  return <BringIn mayKnowStudios={can(person, 'manageStudio')} timeZone={timeZone} today={today} />
}
