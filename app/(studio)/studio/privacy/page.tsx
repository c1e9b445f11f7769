import type { Metadata } from 'next'
import { PrivacyView } from '@/interface/studio/privacy/PrivacyView'
import { accessQuery, privacyPage } from '@/server/pages/studio/privacy'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { seen } from '@/server/privacy/accessLog/seen'

export const metadata: Metadata = { title: 'Privacy' }

type Props = Readonly<{ searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>> }>

/** Retention times, and the log of access to health data. */
export default async function PrivacyRoute({ searchParams }: Props) {
  const person = await requirePermission('managePrivacy')
  seen(person, 'log')
  return <PrivacyView {...await privacyPage(database(), person, accessQuery(await searchParams))} />
}
