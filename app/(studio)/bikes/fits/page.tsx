import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { schoolOf } from '@/core/school/school'
import { AccommodationView } from '@/interface/bikes/AccommodationView'
import { requirePermission } from '@/server/accounts/session'
import { listBikes } from '@/server/bikes/bikes'
import { listTypes } from '@/server/bikes/versions'
import { database } from '@/server/db/connection'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Who fits' }

export default async function WhoFitsPage() {
  const person = await requirePermission('seeBikes')
  const db = database()
  const studio = await getStudio(db, person)
  const [types, bikes] = await Promise.all([listTypes(db, person), listBikes(db, person)])
  const fleet = types.flatMap(({ lineId, bikeType }) => {
    const count = bikes.filter((b) => b.lineId === lineId).length
    return count > 0 ? [{ lineId, bikeType, count }] : []
  })
  if (fleet.length === 0) redirect('/bikes')
  return <AccommodationView types={fleet} school={schoolOf(studio.school)} />
}
