import { REFERRAL } from '@/core/classes/watch/comfort'
import { MEMBER_CAUTIONS } from '@/core/messages/riders/memberPage'
import { CERTAINTY_TEXT } from '@/core/messages/setups/register'
import { capitalized } from '@/core/messages/words/phrases'
import type { OwnBikePage } from '@/server/pages/riders/ownBike'
import { Link } from '../../kit/Link'
import { Bothers } from './Bothers'
import { Felt } from './Felt'
import { KeepLink } from './KeepLink'
import styles from './memberPage.module.css'
import { OwnNumbers } from './OwnNumbers'

type Props = Readonly<{
  token: string
  code: string
  page: OwnBikePage
  /** This may be the member's own phone. */
  keepsLink: boolean
}>

/** A member at a machine: their numbers on it, how it felt, what bothers. */
export function OwnBike({ token, code, page, keepsLink }: Props) {
  const { studio, name, number, type, closing, outOfUse, marks, certainty, remark, from } = page
  return (
    <main className={styles.page}>
      <header>
        <p className={styles.studio}>
          {studio.name}, {name}
        </p>
        <h1>Bike {number}</h1>
      </header>
      {outOfUse && (
        <p className={styles.stop}>This bike is out of use. Take another one, and leave this one as it is.</p>
      )}
      {marks ? (
        <section className={styles.set} aria-label={type.name}>
          <h2>{type.name}</h2>
          <OwnNumbers type={type} closing={closing} marks={marks} tryAlone={{}} />
          <p className={styles.quiet}>
            {certainty && `${capitalized(CERTAINTY_TEXT[certainty])}. `}
            {from && `Worked out from your numbers on ${from}: let an instructor look. `}
            {remark && `${capitalized(remark)}.`}
          </p>
        </section>
      ) : (
        <section className={styles.set} aria-label={type.name}>
          <p>You have no numbers for this bike yet.</p>
          <Link className={styles.way} href={`/b/${code}`}>
            Set it up alone
          </Link>
        </section>
      )}
      {marks && (
        <>
          <Felt token={token} />
          <Bothers token={token} referral={studio.referral ?? REFERRAL} />
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
      <section className={styles.part} aria-label="All your numbers">
        <Link className={styles.way} href={`/m/${token}`}>
          All your numbers
        </Link>
      </section>
      {keepsLink && <KeepLink token={token} />}
    </main>
  )
}
