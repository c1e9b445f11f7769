import type { Metadata } from 'next'
import Link from 'next/link'
import { schoolOf } from '@/core/school/school'
import { storyPage } from '@/interface/comfort/storyPage'
import { StoryView } from '@/interface/comfort/StoryView'
import styles from '@/interface/memberPage/memberPage.module.css'
import { storyOf } from '@/server/comfort/story'
import { database } from '@/server/db/connection'
import { scopeOf } from '@/server/memberPage/page'
import { getStudio } from '@/server/studio/studio'
import { ownerOfLink } from '../ownerOfLink'

export const metadata: Metadata = { title: 'Your story', robots: { index: false, follow: false, nocache: true } }

/** A member's own story behind their private link. */
export default async function OwnStory({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params
  const owner = await ownerOfLink(token)
  const scope = scopeOf(owner)
  const { name, timeZone, school } = await getStudio(database(), scope)
  const story = await storyOf(database(), scope, owner.memberId, new Date())
  return (
    <main className={styles.page}>
      <header>
        <p className={styles.studio}>{name}</p>
        <h1>{owner.name}</h1>
        <p className={styles.back}>
          <Link href={`/m/${token}`}>Your numbers</Link>
        </p>
      </header>
      <StoryView story={storyPage(story, timeZone, schoolOf(school).kneeWindowDeg)} />
    </main>
  )
}
