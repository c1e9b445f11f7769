import type { ReactNode } from 'react'
import { OutboxProvider } from '@/interface/offline/OutboxProvider'
import { Shell } from '@/interface/frame/Shell'
import { can } from '@/server/platform/accounts/can'
import { requireOwner } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { getStudio } from '@/server/studio/studio'

/** The frame of every page of a signed-in user, whose permission the page checks itself: bar and device's outbox. */
export async function Frame({ children }: { children: ReactNode }) {
  const person = await requireOwner()
  const studio = await getStudio(database(), person)
  return (
    <OutboxProvider author={{ id: person.userId, name: person.name }}>
      <Shell
        studio={studio.name}
        person={person.name}
        manages={can(person, 'manageStudio')}
        idleMinutes={person.idleMinutes}
      >
        {children}
      </Shell>
    </OutboxProvider>
  )
}
