import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { TapeBench } from '@/interface/bikes/TapeBench'
import { requireUser } from '@/server/accounts/session'
import { typeLine, typeReadings } from '@/server/bikes/types'
import { database } from '@/server/db/connection'

export const metadata: Metadata = { title: 'Under the tape' }

export default async function TapePage({ params }: { params: Promise<{ id: string }> }) {
  await requireUser()
  const { id } = await params
  const db = database()
  const [latest] = await typeLine(db, id)
  if (!latest) notFound()
  return (
    <TapeBench
      key={latest.id}
      typeId={latest.id}
      bikeType={latest.bikeType}
      stored={await typeReadings(db, latest.id)}
    />
  )
}
