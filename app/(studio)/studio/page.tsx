import type { Metadata } from 'next'
import { StudioView } from '@/interface/studio/StudioView'
import { requirePermission } from '@/server/accounts/session'
import { listTypes } from '@/server/bikes/versions'
import { database } from '@/server/db/connection'
import { learnedPrior, suggestionRecordOf } from '@/server/setups/learned'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Studio' }

export default async function StudioPage() {
  const person = await requirePermission('manageStudio')
  const db = database()
  const [studio, types] = await Promise.all([getStudio(db, person), listTypes(db, person)])
  const learned = await learnedPrior(db, person, studio)
  return (
    <StudioView
      name={studio.name}
      settings={{ school: studio.school, costs: studio.costs ?? {}, learns: studio.learns }}
      learned={learned}
      record={await suggestionRecordOf(db, person, studio, learned)}
      types={types.map(({ lineId, bikeType }) => ({ id: lineId, bikeType }))}
    />
  )
}
