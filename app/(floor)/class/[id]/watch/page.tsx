import type { Metadata } from 'next'
import { classPage } from '@/interface/class/classPage'
import { WatchView } from '@/interface/class/WatchView'
import { watchData } from '@/server/pages/watch'
import { database } from '@/server/db/connection'

export const metadata: Metadata = { title: 'During the class' }

export default async function WatchPage({ params }: { params: Promise<{ id: string }> }) {
  const { person, ofClass, info } = await classPage((await params).id, 'writeNotes')
  return <WatchView info={info} data={await watchData(database(), person, ofClass, new Date())} />
}
