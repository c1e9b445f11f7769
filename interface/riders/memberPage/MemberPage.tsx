import { MEMBER_CAUTIONS } from '@/core/messages/riders/memberPage'
import { capitalized } from '@/core/messages/words/phrases'
import { CERTAINTY_TEXT, PURPOSE_NAME } from '@/core/messages/setups/register'
import type { MemberPageData, MemberSet } from '@/server/pages/riders/memberPage'
import { Link } from '../../kit/Link'
import { GettingOn } from '../../setups/show/GettingOn'
import { ShowIt } from '../../setups/show/ShowIt'
import { Bothers } from './Bothers'
import { Felt } from './Felt'
import { HomeForm } from './HomeForm'
import type { ConsentText } from '../../comfort/limits/ConsentPart'
import { OwnConsent } from './OwnConsent'
import { KeepLink } from './KeepLink'
import { OwnNumbers } from './OwnNumbers'
import { OwnTrial, type OwnTrialSummary } from './OwnTrial'
import { OwnProgramme } from './OwnProgramme'
import type { OwnProgrammeSummary } from './ownProgrammeProps'
import { Recheck } from './Recheck'
import { TakeAlong } from './TakeAlong'
import type { TakeText } from './takeProps'
import styles from './memberPage.module.css'

export type MemberPageProps = Readonly<{
  token: string
  studio: string
  name: string
  sets: readonly (Omit<MemberSet, 'at'> & Readonly<{ date: string }>)[]
  first: MemberPageData['first']
  hasStory: boolean
  hasFile: boolean
  consent: ConsentText
  trials: readonly OwnTrialSummary[]
  programmes: readonly OwnProgrammeSummary[]
  /** What may be taken to another studio; null for nothing. */
  take: TakeText | null
  /** The words for what is no matter for a bike. */
  referral: string
  /** This may be the member's own phone. */
  keepsLink: boolean
}>

/** A member's numbers on their own phone: large, with how to set them, what they may try, and how it felt. */
export function MemberPage({
  token,
  studio,
  name,
  sets,
  first,
  hasStory,
  hasFile,
  consent,
  trials,
  programmes,
  take,
  referral,
  keepsLink,
}: MemberPageProps) {
  return (
    <main className={styles.page}>
      <header>
        <p className={styles.studio}>{studio}</p>
        <h1>{name}</h1>
      </header>
      {trials.map((trial) => (
        <OwnTrial key={trial.id} token={token} trial={trial} />
      ))}
      {sets.map(({ id, type, bike, closing, purpose, marks, certainty, date, tryAlone, rider }) => (
        <section key={id} className={styles.set} aria-label={type.name}>
          <h2>
            {type.name}
            {purpose !== 'usual' && <span>{PURPOSE_NAME[purpose].toLowerCase()}</span>}
          </h2>
          <OwnNumbers type={type} closing={closing} marks={marks} tryAlone={tryAlone} />
          <p className={styles.quiet}>
            {capitalized(CERTAINTY_TEXT[certainty])}, {date}
          </p>
          {rider && (
            <details className={styles.how}>
              <summary>See it: too low, yours, too high</summary>
              <ShowIt bikeType={type} bike={bike} marks={marks} rider={rider} />
            </details>
          )}
        </section>
      ))}
      {first && (
        <>
          <p className={styles.lead}>
            {first.measured
              ? `Your first marks. At the bike it takes about ${first.minutes} minutes more: come that much earlier.`
              : `No numbers yet. A first set-up takes about ${first.minutes} minutes; less with what you measure here.`}
          </p>
          {first.marks.map(({ type, closing, marks }) => (
            <section key={type.name} className={styles.set} aria-label={type.name}>
              <h2>{type.name}</h2>
              <OwnNumbers type={type} closing={closing} marks={marks} tryAlone={{}} />
            </section>
          ))}
          <HomeForm token={token} measured={first.measured} />
        </>
      )}
      {programmes.map((programme) => (
        <OwnProgramme key={programme.id} token={token} programme={programme} referral={referral} />
      ))}
      <details className={styles.how}>
        <summary>Getting on and off</summary>
        <GettingOn />
      </details>
      <section className={styles.part} aria-label="Before you ride">
        <h2>Before you ride</h2>
        <ul className={styles.cautions}>
          {MEMBER_CAUTIONS.map((caution) => (
            <li key={caution}>{caution}</li>
          ))}
        </ul>
      </section>
      {sets.length > 0 && (
        <>
          <OwnConsent token={token} consent={consent} />
          <Felt token={token} />
          <Bothers token={token} referral={referral} />
          <Recheck token={token} />
          {hasStory && (
            <section className={styles.part} aria-label="Your story">
              <h2>Your story</h2>
              <p>Your numbers, what was seen and felt, and what was tried, in one line of time.</p>
              <Link className={styles.way} href={`/m/${token}/story`}>
                Read it
              </Link>
            </section>
          )}
        </>
      )}
      {take && <TakeAlong token={token} take={take} />}
      {hasFile && (
        <section className={styles.part} aria-label="Your data">
          <h2>Your data</h2>
          <p>All that the studio stores about you. Ask there to have it erased.</p>
          <a className={styles.way} href={`/m/${token}/data/data.pdf`}>
            To read, PDF
          </a>{' '}
          <a className={styles.way} href={`/m/${token}/data/data.json`}>
            All rows, JSON
          </a>
        </section>
      )}
      <p className={styles.quiet}>Whoever has this link sees this page. The studio can end it at any time.</p>
      {keepsLink && <KeepLink token={token} />}
    </main>
  )
}
