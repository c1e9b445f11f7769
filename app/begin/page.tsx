import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { BeginStudio } from '@/interface/frame/accounts/BeginStudio'
import { hasAccounts } from '@/server/platform/accounts/accounts'
import { timeZones } from '@/server/studio/studioFacts'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Begin' }

/** The first page of a new installation; once somebody has an account it leads to sign-in. */
export default async function BeginPage() {
  if (await hasAccounts(database())) redirect('/sign-in')
  return <BeginStudio zones={timeZones()} />
}
