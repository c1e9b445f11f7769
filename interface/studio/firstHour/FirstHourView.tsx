'use client'
import { CheckOutlined } from '@ant-design/icons'
import { FIRST_HOUR_STEPS, FIRST_HOUR_TEXT } from '@/core/messages/studio/firstHour'
import type { FirstHourPage } from '@/server/pages/studio/firstHour'
import { CommonBikes } from './CommonBikes'
import styles from './firstHour.module.css'
import { FirstRider } from './FirstRider'
import { Link } from '../../kit/Link'

/** From an empty studio to daily use: what is done and what is left. The first two are done right here. */
export function FirstHourView({ done, bikes }: FirstHourPage) {
  const count = FIRST_HOUR_STEPS.filter((step) => done[step]).length
  const form = { bikes: <CommonBikes />, rider: bikes.length > 0 ? <FirstRider bikes={bikes} /> : null } as const
  return (
    <article className={styles.page}>
      <header>
        <h1>First hour</h1>
        <p className={styles.quiet}>
          {count === FIRST_HOUR_STEPS.length
            ? 'All of it is done.'
            : `${count} of ${FIRST_HOUR_STEPS.length} done. Leave it at any time: Today leads back here.`}
        </p>
      </header>
      <ol className={styles.steps}>
        {FIRST_HOUR_STEPS.map((step, i) => {
          const { name, hint, href, open } = FIRST_HOUR_TEXT[step]
          const own = !done[step] && (step === 'bikes' || step === 'rider') ? form[step] : null
          return (
            <li key={step} data-done={done[step] || undefined} aria-label={name}>
              <span className={styles.tick}>{done[step] ? <CheckOutlined aria-label="done" /> : i + 1}</span>
              <div className={styles.what}>
                <b>{name}</b>
                {!done[step] && <small>{hint}</small>}
                {own}
              </div>
              <Link href={href} className={styles.open}>
                {open}
              </Link>
            </li>
          )
        })}
      </ol>
    </article>
  )
}
