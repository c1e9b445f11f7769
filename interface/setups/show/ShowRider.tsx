import { PURPOSE_NAME } from '@/core/messages/setups/register'
import type { showRider } from '@/server/pages/riders/showRider'
import { Link } from '../../kit/Link'
import { BikeTour } from './BikeTour'
import { GettingOn } from './GettingOn'
import { PrintButton } from './PrintButton'
import { ShowIt } from './ShowIt'
import styles from './show.module.css'

type Props = Readonly<{ memberId: string; page: NonNullable<Awaited<ReturnType<typeof showRider>>> }>

/** What is shown to a rider before they ride: wrong and right on their own body, on and off, the parts. */
export function ShowRider({ memberId, page: { name, sets } }: Props) {
  const [first] = sets
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <h1>{name}</h1>
        <Link className="no-print" href={`/riders/${memberId}`}>
          Numbers
        </Link>
        {first && <PrintButton />}
      </header>
      {sets.map(({ id, type, bike, marks, purpose, rider, isGuess }) => (
        <section key={id} aria-label={type.name} className={styles.set}>
          <h2>
            {type.name}
            {purpose !== 'usual' && <small>{PURPOSE_NAME[purpose].toLowerCase()}</small>}
          </h2>
          {isGuess && <p className={styles.none}>Nothing was measured of this rider: a body of middle size.</p>}
          <ShowIt bikeType={type} bike={bike} marks={marks} rider={rider} />
        </section>
      ))}
      {!first && (
        <p className={styles.none} data-empty>
          No numbers yet, so there is no body to show. Set this rider up, then it stands here.
        </p>
      )}
      <GettingOn />
      {first && (
        <section aria-label="The parts" className={styles.set}>
          <h2>The parts of {first.type.name}</h2>
          <BikeTour bikeType={first.type} closing={first.closing} marks={first.marks} />
        </section>
      )}
    </article>
  )
}
