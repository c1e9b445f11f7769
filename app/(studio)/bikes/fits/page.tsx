import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { schoolOf } from '@/core/school/school'
import { AccommodationView } from '@/interface/bikes/AccommodationView'
import { requirePermission } from '@/server/accounts/session'
import { listBikes } from '@/server/bikes/bikes'
import { fleetAccommodation, typesInUse } from '@/server/bikes/fleetAccommodation'
import { listTypes } from '@/server/bikes/versions'
import { database } from '@/server/db/connection'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Who fits' }

export default async function WhoFitsPage() {
  const person = await requirePermission('seeBikes')
  const db = database()
  const studio = await getStudio(db, person)
  const [types, bikes] = await Promise.all([listTypes(db, person), listBikes(db, person)])
  const fleet = typesInUse(types, bikes)
  if (fleet.length === 0) redirect('/bikes')
  const request = { bikeTypes: fleet.map(({ bikeType }) => bikeType), school: schoolOf(studio.school) }
  return <AccommodationView types={fleet} request={request} computed={fleetAccommodation(person, request)} />
}
