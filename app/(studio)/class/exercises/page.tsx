import type { Metadata } from 'next'
import { ExercisesView } from '@/interface/comfort/exercises/ExercisesView'
import { requirePermission } from '@/server/platform/accounts/session'

export const metadata: Metadata = { title: 'Off the bike' }

/** Exercises, drills and kit, to look up and to print. */
export default async function Page() {
  await requirePermission('seeNotes')
  return <ExercisesView />
}
