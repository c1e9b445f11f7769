import type { Metadata } from 'next'
import { BlocksView } from '@/interface/blocks/BlocksView'
import { classPage } from '@/interface/class/classPage'
import { can } from '@/server/accounts/can'
import { listClasses } from '@/server/classes/classes'
import { database } from '@/server/db/connection'
import { formatDate } from '@/server/studio/day'

export const metadata: Metadata = { title: 'Plan of the class' }

const AROUND_MS = 45 * 86_400_000
const MAX_OTHER_CLASSES = 12

export default async function BlocksPage({ params }: { params: Promise<{ id: string }> }) {
  const { person, ofClass, info, studio } = await classPage((await params).id, 'seeNotes')
  const around = [-AROUND_MS, AROUND_MS].map((ms) => new Date(ofClass.startsAt.getTime() + ms))
  const classes = await listClasses(database(), person, around[0], around[1])
  const others = classes.filter(({ id, blocks }) => id !== info.id && blocks !== null).slice(-MAX_OTHER_CLASSES)
  return (
    <BlocksView
      info={info}
      mayPlan={can(person, 'planClasses')}
      others={others.map(({ id, title, startsAt, blocks }) => ({
        id,
        name: `${title}, ${formatDate(startsAt, studio.timeZone)}`,
        blocks: blocks!,
      }))}
    />
  )
}
