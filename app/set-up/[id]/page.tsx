import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { OutboxProvider } from '@/interface/offline/OutboxProvider'
import { setupProps } from '@/interface/setups/setupProps'
import { SetupView } from '@/interface/setups/SetupView'
import { setupPage } from '@/server/pages/setups/setup'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { isId } from '@/server/platform/ids'
import { seen } from '@/server/privacy/accessLog/seen'

export const metadata: Metadata = { title: 'Set-up' }

type Props = Readonly<{
  params: Promise<{ id: string }>
  searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>
}>

export default async function SetupRoute({ params, searchParams }: Props) {
  const person = await requirePermission('setUpRiders')
  const [{ id }, query] = [await params, await searchParams]
  const page = await setupPage(database(), person, id, new Date())
  if (!page) notFound()
  seen(person, 'setUp', page.setup.memberId)
  const back = isId(query.class) ? `/class/${query.class}` : `/riders/${page.setup.memberId}`
  return (
    <OutboxProvider author={{ id: person.userId, name: person.name }}>
      <SetupView {...setupProps(page)} entersKnownNumbers={query.told === '1'} back={back} />
    </OutboxProvider>
  )
}
