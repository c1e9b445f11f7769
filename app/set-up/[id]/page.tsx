import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { schoolOf } from '@/core/school/school'
import { SetupView } from '@/interface/setup/SetupView'
import { signedIn } from '@/server/accounts/session'
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
  const [studio, member, rows] = await Promise.all([theStudio(db), memberById(db, setup.memberId), rowsOf(db, id)])
  if (!member) notFound()
  return (
    <SetupView
      setupId={id}
      member={member}
      bike={{ number: setup.bikeNumber, own: setup.own, type: setup.type, landmarks: setup.sheet.landmarks }}
      school={schoolOf(studio.school)}
      stored={rows}
      finished={setup.finishedAt !== null}
    />
  )
}
