import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { inspectionState } from '@/core/bike/inspection'
import { capitalised } from '@/core/words/phrases'
import { inspectionSaid } from '@/interface/bikes/inspectionSaid'
import { RoundView } from '@/interface/bikes/RoundView'
import { requireUser } from '@/server/accounts/session'
import { bikesOf } from '@/server/bikes/bikes'
import { lastInspections } from '@/server/bikes/machines'
import { database } from '@/server/db/connection'
import { dateSaid } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Round' }

export default async function RoundPage({ searchParams }: { searchParams: Promise<{ bike?: string }> }) {
  await requireUser()
  const { bike } = await searchParams
  const now = new Date()
  const db = database()
  const studio = await getStudio(db)
  const [bikes, looked] = await Promise.all([bikesOf(db, studio.id), lastInspections(db)])
  if (bikes.length === 0) redirect('/bikes')
  return (
    <RoundView
      studio={studio.name}
      day={dateSaid(now, studio.timeZone)}
      start={bike ? Number(bike) : null}
      bikes={bikes.map((b) => {
        const state = inspectionState(looked.get(b.id)?.getTime() ?? null, b.openFaults, now.getTime())
        return {
          id: b.id,
          number: b.number,
          type: b.type.name,
          state: capitalised(inspectionSaid(state, studio.timeZone)),
          due: state.outcome === 'due' || state.outcome === 'never',
        }
      })}
    />
  )
}
