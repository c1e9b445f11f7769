import type { Metadata } from 'next'
import { AfterView } from '@/interface/class/AfterView'
import { classPage } from '@/interface/class/classPage'
import { afterClass } from '@/server/classes/after'
import { database } from '@/server/db/connection'

export const metadata: Metadata = { title: 'After the class' }

export default async function AfterPage({ params }: { params: Promise<{ id: string }> }) {
  const { person, ofClass, info } = await classPage((await params).id, 'seeNotes')
  return <AfterView info={info} data={await afterClass(database(), person, ofClass, new Date())} />
}
