import { RiderNav } from '../../frame/RiderNav'
import reasons from '../reasons/reasons.module.css'
import type { StoryPage } from './storyPage'
import { StoryView } from './StoryView'

/** A rider's story under their name, with the way to their other pages. */
export function RiderStory({ member, story }: { member: Readonly<{ id: string; name: string }>; story: StoryPage }) {
  return (
    <article className={reasons.page}>
      <header className={reasons.head}>
        <div className={reasons.who}>
          <h1>{member.name}</h1>
          <RiderNav memberId={member.id} here="Story" />
        </div>
      </header>
      <StoryView story={story} />
    </article>
  )
}
