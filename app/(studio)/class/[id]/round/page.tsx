import type { Metadata } from 'next'
import { classPage } from '@/interface/class/classPage'
import { RoundView } from '@/interface/class/RoundView'
import { roundOf } from '@/server/pages/round'
import { database } from '@/server/db/connection'

export const metadata: Metadata = { title: 'A round of newcomers' }

export default async function RoundPage({ params }: { params: Promise<{ id: string }> }) {
  const { person, ofClass, info } = await classPage((await params).id, 'setUpRiders')
  return <RoundView info={info} data={await roundOf(database(), person, ofClass, new Date())} />
}
