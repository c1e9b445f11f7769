import type { Metadata } from 'next'
import { DevicesView } from '@/interface/studio/devices/DevicesView'
import { devicesPage } from '@/server/pages/studio/devices'
import { requirePermission } from '@/server/platform/accounts/session'

export const metadata: Metadata = { title: 'Devices' }

export default async function DevicesRoute() {
  await requirePermission('manageStudio')
  return <DevicesView {...await devicesPage(new Date())} />
}
