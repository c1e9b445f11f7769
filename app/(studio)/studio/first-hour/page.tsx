import type { Metadata } from 'next'
import { FirstHourView } from '@/interface/studio/firstHour/FirstHourView'
import { firstHourPage } from '@/server/pages/studio/firstHour'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'First hour' }

/** From an empty studio to daily use, step by step. */
export default async function FirstHourRoute() {
  const person = await requirePermission('manageStudio')
  return <FirstHourView {...await firstHourPage(database(), person)} />
}
