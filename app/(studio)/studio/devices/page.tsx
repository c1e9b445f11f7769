import type { Metadata } from 'next'
import { DevicesView } from '@/interface/studio/devices/DevicesView'
import { devicesPage } from '@/server/pages/studio/devices'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Devices' }

export default async function DevicesRoute() {
  const person = await requirePermission('manageStudio')
  return <DevicesView {...await devicesPage(database(), person, new Date())} />
}
