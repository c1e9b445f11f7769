import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { BikeSide } from '@/interface/classes/before/BikeSide'
import { bikeSideProps } from '@/interface/classes/before/bikeSideProps'
import { listSeats } from '@/server/classes/seats'
import { classPage } from '@/server/pages/classes/classPage'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'At the bike' }

export default async function BikeSidePage({ params }: { params: Promise<{ id: string; bikeId: string }> }) {
  const { id, bikeId } = await params
  const { person, ofClass } = await classPage(id, 'seeNumbers')
  const seat = (await listSeats(database(), person, ofClass.id)).find(({ bike }) => bike.id === bikeId)
  return seat ? <BikeSide {...bikeSideProps(ofClass, seat)} /> : notFound()
}
