import type { Metadata } from 'next'
import { BikesView } from '@/interface/bikes/fleet/BikesView'
import { fleetProps } from '@/interface/bikes/fleet/fleetProps'
import { fleetPage } from '@/server/pages/bikes/fleet'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Bikes' }

export default async function BikesPage() {
  const person = await requirePermission('seeBikes')
  return <BikesView {...fleetProps(await fleetPage(database(), person, new Date()))} />
}
