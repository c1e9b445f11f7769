import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { machineProps } from '@/interface/bikes/machine/machineProps'
import { MachineView } from '@/interface/bikes/machine/MachineView'
import { machinePage } from '@/server/pages/bikes/machine'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Bike' }

export default async function MachineRoute({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('inspectBikes')
  const page = await machinePage(database(), person, (await params).id, new Date())
  return page ? <MachineView {...machineProps(page)} /> : notFound()
}
