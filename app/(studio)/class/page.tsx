import type { Metadata } from 'next'
import { timetableProps } from '@/interface/classes/timetable/timetableProps'
import { TimetableView } from '@/interface/classes/timetable/TimetableView'
import { timetable } from '@/server/pages/classes/timetable'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Classes' }

/** The week of the day in the address, else the current one. */
export default async function TimetablePage({ searchParams }: { searchParams: Promise<{ week?: string }> }) {
  const person = await requirePermission('seeNumbers')
  const { week } = await searchParams
  return <TimetableView {...timetableProps(await timetable(database(), person, week, new Date()))} />
}
