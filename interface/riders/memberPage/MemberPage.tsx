import { axesOf, type BikeType } from '@/core/bikes/bike/bike'
import type { BikeEquipment } from '@/core/bikes/bike/equipment'
import type { Marks } from '@/core/base/conventions'
import { formatLabel, formatTryAlone } from '@/core/messages/words/labels'
import { formatHowToSet, MEMBER_CAUTIONS } from '@/core/messages/riders/memberPage'
import { AXIS_TITLE, capitalized } from '@/core/messages/words/phrases'
import { CERTAINTY_TEXT, PURPOSE_NAME } from '@/core/messages/setups/register'
import type { SelfAdjustmentRange } from '@/core/setups/recommend/request/selfAdjustment'
import type { MemberPageData, MemberSet } from '@/server/pages/riders/memberPage'
import { BikeDrawing } from '../../kit/drawing/BikeDrawing'
import { ScaleStrip } from '../../kit/scale/ScaleStrip'
import { Link } from '../../kit/Link'
import { Bothers } from './Bothers'
import { Felt } from './Felt'
import { HomeForm } from './HomeForm'
import type { ConsentText } from '../../comfort/limits/ConsentPart'
import { OwnConsent } from './OwnConsent'
import { OwnTrial, type OwnTrialSummary } from './OwnTrial'
import { Recheck } from './Recheck'
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
  /** The words for what is no matter for a bike. */
  referral: string
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
  referral,
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
      {sets.map(({ id, type, closing, purpose, marks, certainty, date, tryAlone }) => (
        <section key={id} className={styles.set} aria-label={type.name}>
          <h2>
            {type.name}
            {purpose !== 'usual' && <span>{PURPOSE_NAME[purpose].toLowerCase()}</span>}
          </h2>
          <Numbers type={type} closing={closing} marks={marks} tryAlone={tryAlone} />
          <p className={styles.quiet}>
            {capitalized(CERTAINTY_TEXT[certainty])}, {date}
          </p>
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
              <Numbers type={type} closing={closing} marks={marks} tryAlone={{}} />
            </section>
          ))}
          <HomeForm token={token} measured={first.measured} />
        </>
      )}
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
    </main>
  )
}

function Numbers({
  type,
  closing,
  marks,
  tryAlone,
}: {
  type: BikeType
  closing: BikeEquipment['closing']
  marks: Marks
  tryAlone: SelfAdjustmentRange
}) {
  return (
    <>
      <dl className={styles.numbers}>
        {axesOf(type).map((axis) => {
          const alone = tryAlone[axis] ?? []
          return (
            <div key={axis}>
              <dt>{AXIS_TITLE[axis]}</dt>
              <dd className={styles.number}>
                {marks[axis] === undefined ? '–' : formatLabel(type, axis, marks[axis])}
              </dd>
              <dd className={styles.where}>
                <ScaleStrip bikeType={type} axis={axis} label={marks[axis]} />
                {alone.length > 0 && <span>You {formatTryAlone(type, axis, alone, marks[axis])}</span>}
              </dd>
            </div>
          )
        })}
      </dl>
      <details className={styles.how}>
        <summary>How to set them</summary>
        <div className={styles.drawing}>
          <BikeDrawing bikeType={type} marks={marks} shown="metric" />
        </div>
        <ol>
          <li>Stand beside the bike, nobody on it.</li>
          {axesOf(type).map((axis) => (
            <li key={axis}>
              <b>
                {AXIS_TITLE[axis]} {marks[axis] === undefined ? '' : formatLabel(type, axis, marks[axis])}
              </b>
              <br />
              {formatHowToSet(axis, closing[axis])}
            </li>
          ))}
        </ol>
      </details>
    </>
  )
}
