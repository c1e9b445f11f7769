import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { storyQuery, storyPage } from '@/interface/comfort/story/storyPage'
import { OwnStory } from '@/interface/riders/memberPage/OwnStory'
import { storyOf } from '@/server/pages/comfort/story'
import { scopeOf } from '@/server/pages/riders/memberPage'
import { database } from '@/server/platform/db/connection'
import { getStudio } from '@/server/studio/studio'
import { ownerOfLink } from '../ownerOfLink'
import { seen } from '@/server/privacy/accessLog/seen'

export const metadata: Metadata = { title: 'Your story', robots: { index: false, follow: false, nocache: true } }

type Props = Readonly<{
  params: Promise<{ token: string }>
  searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>
}>

/** A member's own story behind their private link. */
export default async function OwnStoryRoute({ params, searchParams }: Props) {
  const [{ token }, query] = [await params, storyQuery(await searchParams)]
  const owner = await ownerOfLink(token)
  if (owner.opens !== 'everything') notFound()
  seen({ studioId: owner.studioId, userId: null }, 'ownPage', owner.memberId)
  const scope = scopeOf(owner)
  const studio = await getStudio(database(), scope)
  const story = storyPage(await storyOf(database(), scope, owner.memberId, query, new Date()), query)
  return <OwnStory studio={studio.name} name={owner.name} token={token} story={story} />
}
