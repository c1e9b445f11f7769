import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { inspectionProps } from '@/interface/bikes/machine/inspectionProps'
import { InspectionView } from '@/interface/bikes/machine/InspectionView'
import { inspectionRound } from '@/server/pages/bikes/inspectionRound'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Round' }

export default async function InspectionPage({ searchParams }: { searchParams: Promise<{ bike?: string }> }) {
  const person = await requirePermission('inspectBikes')
  const round = await inspectionRound(database(), person, new Date())
  if (round.bikes.length === 0) redirect('/bikes')
  return <InspectionView {...inspectionProps(round, (await searchParams).bike)} />
}
