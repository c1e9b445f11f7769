import type { Metadata } from 'next'
import { classInfo } from '@/interface/classes/classInfo'
import { WatchView } from '@/interface/classes/watch/WatchView'
import { classPage } from '@/server/pages/classes/classPage'
import { watchData } from '@/server/pages/classes/watch'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'During the class' }

export default async function WatchPage({ params }: { params: Promise<{ id: string }> }) {
  const page = await classPage((await params).id, 'writeNotes')
  return <WatchView info={classInfo(page)} data={await watchData(database(), page.person, page.ofClass, new Date())} />
}
