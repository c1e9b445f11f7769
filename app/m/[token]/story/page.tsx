import type { Metadata } from 'next'
import Link from 'next/link'
import { notFound } from 'next/navigation'
import { schoolOf } from '@/core/school/school'
import { storyAsked, storyPage } from '@/interface/comfort/storyPage'
import { StoryView } from '@/interface/comfort/StoryView'
import styles from '@/interface/memberPage/memberPage.module.css'
import { storyOf } from '@/server/pages/story'
import { database } from '@/server/db/connection'
import { scopeOf } from '@/server/pages/memberPage'
import { getStudio } from '@/server/studio/studio'
import { ownerOfLink } from '../ownerOfLink'

export const metadata: Metadata = { title: 'Your story', robots: { index: false, follow: false, nocache: true } }

type Asked = Readonly<{
  params: Promise<{ token: string }>
  searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>
}>

/** A member's own story behind their private link. */
export default async function OwnStory({ params, searchParams }: Asked) {
  const [{ token }, asked] = [await params, storyAsked(await searchParams)]
  const owner = await ownerOfLink(token)
  if (owner.opens !== 'everything') notFound()
  const scope = scopeOf(owner)
  const { name, timeZone, school } = await getStudio(database(), scope)
  const story = await storyOf(database(), scope, owner.memberId, asked, new Date())
  return (
    <main className={styles.page}>
      <header>
        <p className={styles.studio}>{name}</p>
        <h1>{owner.name}</h1>
        <p className={styles.back}>
          <Link href={`/m/${token}`}>Your numbers</Link>
        </p>
      </header>
      <StoryView story={storyPage(story, asked, timeZone, schoolOf(school).kneeWindowDeg)} />
    </main>
  )
}
