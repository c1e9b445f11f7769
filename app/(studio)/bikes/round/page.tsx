import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { inspectionState } from '@/core/bike/inspection'
import { formatInspectionState } from '@/core/messages/machine'
import { capitalized } from '@/core/messages/phrases'
import { InspectionView } from '@/interface/bikes/InspectionView'
import { requirePermission } from '@/server/accounts/session'
import { listBikes } from '@/server/bikes/bikes'
import { lastInspections } from '@/server/bikes/inspections'
import { database } from '@/server/db/connection'
import { formatDate } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Round' }

export default async function RoundPage({ searchParams }: { searchParams: Promise<{ bike?: string }> }) {
  const person = await requirePermission('inspectBikes')
  const { bike } = await searchParams
  const now = new Date()
  const db = database()
  const studio = await getStudio(db, person)
  const [bikes, looked] = await Promise.all([listBikes(db, person), lastInspections(db, person)])
  if (bikes.length === 0) redirect('/bikes')
  return (
    <InspectionView
      studio={studio.name}
      day={formatDate(now, studio.timeZone)}
      start={bike ? Number(bike) : null}
      bikes={bikes.map((b) => {
        const state = inspectionState(looked.get(b.id)?.getTime() ?? null, b.openFaults, now.getTime())
        return {
          id: b.id,
          number: b.number,
          type: b.type.name,
          state: capitalized(formatInspectionState(state, studio.timeZone)),
          due: state.outcome === 'due' || state.outcome === 'never',
        }
      })}
    />
  )
}
