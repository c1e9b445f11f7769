import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { schoolOf } from '@/core/school/school'
import { SetupView } from '@/interface/setup/SetupView'
import { signedIn } from '@/server/accounts/session'
import { bikeById } from '@/server/bikes/bikes'
import { database } from '@/server/db/connection'
import { memberById } from '@/server/members/members'
import { rowsOf, setupById } from '@/server/setups/setups'
import { theStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Set-up' }

export default async function SetupPage({ params }: { params: Promise<{ id: string }> }) {
  await signedIn()
  const { id } = await params
  const db = database()
  const setup = await setupById(db, id)
  if (!setup) notFound()
  const [studio, member, bike, rows] = await Promise.all([theStudio(db), memberById(db, setup.memberId), bikeById(db, setup.bikeId), rowsOf(db, id)])
  if (!member || !bike) notFound()
  return (
    <SetupView
      setupId={id}
      member={member}
      bike={{ number: bike.number, own: bike.own, type: bike.type }}
      school={schoolOf(studio.school)}
      stored={rows}
      finished={setup.finishedAt !== null}
    />
  )
}
