import type { Metadata } from 'next'
import { todayProps } from '@/interface/classes/today/todayProps'
import { TodayView } from '@/interface/classes/today/TodayView'
import { today } from '@/server/pages/classes/today'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Today' }

export default async function TodayPage() {
  const person = await requirePermission('seeNumbers')
  return <TodayView {...todayProps(await today(database(), person, new Date()))} />
}
