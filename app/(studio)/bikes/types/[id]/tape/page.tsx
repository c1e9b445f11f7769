import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { CalibrationView } from '@/interface/bikes/tape/CalibrationView'
import { requirePermission } from '@/server/platform/accounts/session'
import { listTapeReadings } from '@/server/bikes/tapeReadings'
import { listVersions } from '@/server/bikes/versions'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Under the tape' }

export default async function TapePage({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('manageBikes')
  const { id } = await params
  const db = database()
  const [latest] = await listVersions(db, person, id)
  if (!latest) notFound()
  return (
    <CalibrationView
      key={latest.id}
      typeId={latest.id}
      bikeType={latest.bikeType}
      stored={await listTapeReadings(db, person, latest.id)}
    />
  )
}
