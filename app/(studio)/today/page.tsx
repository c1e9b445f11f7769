import type { Metadata } from 'next'
import { TodayView } from '@/interface/today/TodayView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { whenOf } from '@/server/classes/classInfo'
import { database } from '@/server/db/connection'
import { formatDay, studioDay } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'
import { today } from '@/server/pages/today'

export const metadata: Metadata = { title: 'Today' }

export default async function TodayPage() {
  const person = await requirePermission('seeNumbers')
  const db = database()
  const now = new Date()
  const { timeZone } = await getStudio(db, person)
  const { next, ...rest } = await today(db, person, now)
  const ofClass = next?.ofClass
  return (
    <TodayView
      next={
        next && ofClass
          ? {
              id: ofClass.id,
              title: ofClass.title,
              when: [
                formatDay(studioDay(ofClass.startsAt, timeZone)),
                whenOf(ofClass, timeZone).span,
                ...(ofClass.roomName ? [ofClass.roomName] : []),
              ].join(', '),
              startsInMin: Math.ceil((ofClass.startsAt.getTime() - now.getTime()) / 60_000),
              coming: next.coming,
              withoutBike: next.withoutBike,
            }
          : null
      }
      today={rest}
      seesNotes={can(person, 'seeNotes')}
      setsUp={can(person, 'setUpRiders')}
      managesBikes={can(person, 'manageBikes')}
    />
  )
}
