import { formatBikeName } from '@/core/messages/bikes/bikeNames'
import { formatNamedMarks, PURPOSE_NAME } from '@/core/messages/setups/register'
import { formatDate } from '@/core/messages/words/dates'
import { formatMarks } from '@/core/messages/words/labels'
import { PAGE_SIZE, type MemberPage, type MemberSearch } from '@/server/pages/riders/members'
import type { MembersViewProps } from './MembersView'

/** Typed text beyond this is ignored. */
const MAX_TYPED = 100

type Query = Readonly<Record<string, string | string[] | undefined>>

/** The search of an address: text, page, and whether only members without numbers are listed. */
export function memberSearch(query: Query): MemberSearch {
  const first = (key: string): string => [query[key]].flat()[0] ?? ''
  return {
    typed: first('find').slice(0, MAX_TYPED),
    withoutNumbers: first('without') === '1',
    page: Number.parseInt(first('page'), 10) || 1,
  }
}

/** A page of the list in words. */
export const membersProps = (
  search: MemberSearch,
  { timeZone, mayImport, mayBringIn, members, total, page, counts }: MemberPage,
): MembersViewProps => ({
  search: { ...search, page },
  pages: { total, size: PAGE_SIZE },
  counts,
  mayImport,
  mayBringIn,
  members: members.map(({ id, name, numbers, openSetupId }) => ({
    id,
    name,
    openSetupId,
    numbers: numbers && {
      line: formatMarks(numbers.type, numbers.marks),
      named: formatNamedMarks(numbers.type, numbers.marks),
      bike:
        formatBikeName(numbers.type.name, numbers.bikeNumber) +
        (numbers.purpose === 'usual' ? '' : `, ${PURPOSE_NAME[numbers.purpose].toLowerCase()}`),
      date: formatDate(numbers.at, timeZone),
    },
  })),
})
