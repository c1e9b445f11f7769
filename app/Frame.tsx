import type { ReactNode } from 'react'
import { OutboxProvider } from '@/interface/outbox/OutboxProvider'
import { Shell } from '@/interface/shared/Shell'
import { can } from '@/server/accounts/can'
import { requireUser } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { getStudio } from '@/server/studio/studio'

/** What stands round every page of the studio, for whoever is signed in: the bar, and the device's outbox. */
export async function Frame({ children }: { children: ReactNode }) {
  const person = await requireUser()
  const studio = await getStudio(database(), person)
  return (
    <OutboxProvider author={{ id: person.userId, name: person.name }}>
      <Shell
        studio={studio.name}
        person={person.name}
        manages={can(person, 'manageStudio')}
        setsUp={can(person, 'setUpRiders')}
      >
        {children}
      </Shell>
    </OutboxProvider>
  )
}
