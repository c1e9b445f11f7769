import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { schoolOf } from '@/core/school/school'
import { OutboxProvider } from '@/interface/outbox/OutboxProvider'
import { SetupView } from '@/interface/setup/SetupView'
import { requireUser } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { memberById } from '@/server/members/members'
import { rowsOf, setupById } from '@/server/setups/setups'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Set-up' }

export default async function SetupPage({ params }: { params: Promise<{ id: string }> }) {
  const person = await requireUser()
  const { id } = await params
  const db = database()
  const setup = await setupById(db, id)
  if (!setup) notFound()
  const [studio, member, rows] = await Promise.all([getStudio(db), memberById(db, setup.memberId), rowsOf(db, id)])
  if (!member) notFound()
  return (
    <OutboxProvider author={person}>
      <SetupView
        setupId={id}
        member={member}
        bike={{ number: setup.bikeNumber, own: setup.own, type: setup.type, landmarks: setup.sheet.landmarks }}
        school={schoolOf(studio.school)}
        stored={rows}
        finished={setup.finishedAt !== null}
      />
    </OutboxProvider>
  )
}
