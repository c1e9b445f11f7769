import type { ReactNode } from 'react'
import { Shell } from '@/interface/shared/Shell'
import { signedIn } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { theStudio } from '@/server/studio/studio'

export default async function StudioLayout({ children }: { children: ReactNode }) {
  const person = await signedIn()
  const studio = await theStudio(database())
  return (
    <Shell studio={studio.name} person={person.name}>
      {children}
    </Shell>
  )
}
