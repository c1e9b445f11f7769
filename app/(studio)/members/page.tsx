import type { Metadata } from 'next'
import { memberSearch, membersProps } from '@/interface/riders/members/membersProps'
import { MembersView } from '@/interface/riders/members/MembersView'
import { searchMembers } from '@/server/pages/riders/members'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Members' }

type Props = Readonly<{ searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>> }>

export default async function MembersPage({ searchParams }: Props) {
  const person = await requirePermission('seeNumbers')
  const search = memberSearch(await searchParams)
  return <MembersView {...membersProps(search, await searchMembers(database(), person, search))} />
}
