import type { Metadata } from 'next'
import { formatMarks } from '@/core/messages/labels'
import { formatNamedMarks, PURPOSE_NAME } from '@/core/messages/register'
import { formatBikeName } from '@/core/messages/rider'
import { MembersView } from '@/interface/members/MembersView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { PAGE_SIZE, searchMembers } from '@/server/members/members'
import { formatDate } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Members' }

type Asked = Readonly<{ searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>> }>

/** A page of the list; what is searched for, which page and whether only those without numbers stand in the address. */
export default async function MembersPage({ searchParams }: Asked) {
  const person = await requirePermission('seeNumbers')
  const asked = await searchParams
  const typed = single(asked.find).slice(0, 100)
  const search = {
    typed,
    withoutNumbers: single(asked.without) === '1',
    page: Number.parseInt(single(asked.page), 10) || 1,
  }
  const db = database()
  const studio = await getStudio(db, person)
  const found = await searchMembers(db, person, search)
  return (
    <MembersView
      search={{ ...search, page: found.page }}
      pages={{ total: found.total, size: PAGE_SIZE }}
      counts={found.counts}
      mayImport={can(person, 'manageStudio')}
      members={found.members.map(({ id, name, numbers, openSetupId }) => ({
        id,
        name,
        openSetupId,
        numbers: numbers && {
          line: formatMarks(numbers.type, numbers.marks),
          named: formatNamedMarks(numbers.type, numbers.marks),
          bike:
            formatBikeName(numbers.type.name, numbers.bikeNumber) +
            (numbers.purpose === 'usual' ? '' : `, ${PURPOSE_NAME[numbers.purpose].toLowerCase()}`),
          date: formatDate(numbers.at, studio.timeZone),
        },
      }))}
    />
  )
}

/** The first of what an address says under one key, which may stand there twice or not at all. */
function single(value: string | string[] | undefined): string {
  return (Array.isArray(value) ? value[0] : value) ?? ''
}
