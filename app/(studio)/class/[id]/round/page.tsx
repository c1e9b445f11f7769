import type { Metadata } from 'next'
import { classInfo } from '@/interface/classes/classInfo'
import { RoundView } from '@/interface/classes/round/RoundView'
import { classPage } from '@/server/pages/classes/classPage'
import { roundOf } from '@/server/pages/classes/round'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'A round of newcomers' }

export default async function RoundPage({ params }: { params: Promise<{ id: string }> }) {
  const page = await classPage((await params).id, 'setUpRiders')
  return <RoundView info={classInfo(page)} data={await roundOf(database(), page.person, page.ofClass, new Date())} />
}
