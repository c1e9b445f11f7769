import type { Metadata } from 'next'
import { OwnAccount } from '@/interface/frame/accounts/OwnAccount'
import { can } from '@/server/platform/accounts/can'
import { requireUser } from '@/server/platform/accounts/session'

export const metadata: Metadata = { title: 'Your account' }

export default async function AccountRoute() {
  const person = await requireUser()
  return <OwnAccount name={person.name} hasEye={can(person, 'setUpRiders')} />
}
