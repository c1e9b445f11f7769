import type { StoryPage } from '../../comfort/story/storyPage'
import { StoryView } from '../../comfort/story/StoryView'
import { Link } from '../../kit/Link'
import styles from './memberPage.module.css'

type Props = Readonly<{ studio: string; name: string; token: string; story: StoryPage }>

/** A member's own story, with the way back to their numbers. */
export function OwnStory({ studio, name, token, story }: Props) {
  return (
    <main className={styles.page}>
      <header>
        <p className={styles.studio}>{studio}</p>
        <h1>{name}</h1>
        <p className={styles.back}>
          <Link href={`/m/${token}`}>Your numbers</Link>
        </p>
      </header>
      <StoryView story={story} />
    </main>
  )
}
