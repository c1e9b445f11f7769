import type { Metadata } from 'next'
import { schoolOf } from '@/core/school/school'
import reasons from '@/interface/comfort/reasons.module.css'
import { storyAsked, storyPage } from '@/interface/comfort/storyPage'
import { StoryView } from '@/interface/comfort/StoryView'
import { RiderNav } from '@/interface/rider/RiderNav'
import { requirePermission } from '@/server/accounts/session'
import { storyOf } from '@/server/pages/story'
import { database } from '@/server/db/connection'
import { leaveForMerged } from '@/server/members/leaveForMerged'
import { findMember } from '@/server/members/members'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Story' }

type Asked = Readonly<{
  params: Promise<{ id: string }>
  searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>
}>

/** Everything that came to pass with a rider, in one line of time. */
export default async function Page({ params, searchParams }: Asked) {
  const person = await requirePermission('seeNotes')
  const [{ id }, asked] = [await params, storyAsked(await searchParams)]
  const db = database()
  const member = await findMember(db, person, id)
  if (!member) return leaveForMerged(db, person, id, '/story')
  const { timeZone, school } = await getStudio(db, person)
  const story = await storyOf(db, person, id, asked, new Date())
  return (
    <article className={reasons.page}>
      <header className={reasons.head}>
        <div className={reasons.who}>
          <h1>{member.name}</h1>
          <RiderNav memberId={id} here="Story" />
        </div>
      </header>
      <StoryView story={storyPage(story, asked, timeZone, schoolOf(school).kneeWindowDeg)} />
    </article>
  )
}
