import type { Metadata } from 'next'
import { OperationView } from '@/interface/studio/operation/OperationView'
import { operationPage } from '@/server/pages/studio/operation'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Operation' }

export default async function OperationRoute() {
  const person = await requirePermission('manageStudio')
  return <OperationView {...await operationPage(database(), person, new Date())} />
}
