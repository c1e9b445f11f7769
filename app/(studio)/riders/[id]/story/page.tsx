import type { Metadata } from 'next'
import { RiderStory } from '@/interface/comfort/story/RiderStory'
import { storyQuery, storyPage } from '@/interface/comfort/story/storyPage'
import { storyOf } from '@/server/pages/comfort/story'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { leaveForMerged } from '@/server/riders/members/leaveForMerged'
import { findMember } from '@/server/riders/members/members'
import { seen } from '@/server/privacy/accessLog/seen'

export const metadata: Metadata = { title: 'Story' }

type Props = Readonly<{
  params: Promise<{ id: string }>
  searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>
}>

/** Everything recorded of a rider on one time line. */
export default async function StoryRoute({ params, searchParams }: Props) {
  const person = await requirePermission('seeNotes')
  const [{ id }, query] = [await params, storyQuery(await searchParams)]
  const member = await findMember(database(), person, id)
  if (!member) return leaveForMerged(database(), person, id, '/story')
  seen(person, 'story', id)
  return (
    <RiderStory member={member} story={storyPage(await storyOf(database(), person, id, query, new Date()), query)} />
  )
}
