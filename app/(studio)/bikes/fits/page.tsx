import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { schoolOf } from '@/core/school/school'
import { WhoFitsView } from '@/interface/bikes/WhoFitsView'
import { requireUser } from '@/server/accounts/session'
import { bikesOf } from '@/server/bikes/bikes'
import { typesOf } from '@/server/bikes/types'
import { database } from '@/server/db/connection'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Who fits' }

export default async function WhoFitsPage() {
  await requireUser()
  const db = database()
  const studio = await getStudio(db)
  const [types, bikes] = await Promise.all([typesOf(db, studio.id), bikesOf(db, studio.id)])
  const fleet = types.flatMap(({ lineId, bikeType }) => {
    const count = bikes.filter((b) => b.lineId === lineId).length
    return count > 0 ? [{ lineId, bikeType, count }] : []
  })
  if (fleet.length === 0) redirect('/bikes')
  return <WhoFitsView types={fleet} school={schoolOf(studio.school)} />
}
