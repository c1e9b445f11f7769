import { EXERCISES, type Exercise } from '@/core/comfort/exercises'
import { KIT_ADVICE } from '@/core/comfort/changes/kit'
import { ExerciseCard } from './ExerciseDrawing'
import styles from './exercises.module.css'
import { Link } from '../../kit/Link'

const PARTS: readonly (readonly [Exercise['kind'], string])[] = [
  ['drill', 'Drills that let a rider feel a cue'],
  ['strength', 'Off the bike'],
]

/** Every drill and exercise drawn, with how often, and what is worn and done. */
export function ExercisesView() {
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <h1>Off the bike, kit and habit</h1>
        <Link className="no-print" href="/class/cues">
          Cues
        </Link>
      </header>
      <p className={styles.lead}>
        Suggestions, not therapy. What hurts is left out; pain that is sharp, grows or lasts belongs to a clinician.
      </p>
      {PARTS.map(([kind, title]) => (
        <section key={kind} aria-label={title}>
          <h2>{title}</h2>
          <div className={styles.cards}>
            {EXERCISES.filter((one) => one.kind === kind).map((exercise) => (
              <ExerciseCard key={exercise.name} exercise={exercise} />
            ))}
          </div>
        </section>
      ))}
      <section aria-label="Kit and habit">
        <h2>Kit and habit</h2>
        <dl className={styles.kit}>
          {KIT_ADVICE.map(({ about, say }) => (
            <div key={about}>
              <dt>{about}</dt>
              <dd>{say}</dd>
            </div>
          ))}
        </dl>
      </section>
    </article>
  )
}
