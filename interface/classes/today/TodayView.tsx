'use client'
import { Button } from 'antd'
import { NEED_TITLE } from '@/core/messages/classes/planning'
import type { DueLine, Today } from '@/server/pages/classes/today'
import { SetUpButton } from '../before/SetUpButton'
import { useStoredPage } from '../../offline/storePage'
import { OutboxLine } from '../../frame/outboxStatus/OutboxLine'
import { StopMark } from '../../kit/StopMark'
import { useRefresh } from '../../kit/useRefresh'
import { Link } from '../../kit/Link'
import { FirstHourStrip } from './FirstHourStrip'
import styles from './today.module.css'

type NextClass = Readonly<{
  id: string
  title: string
  /** "Mon 30 Nov, 18:00–18:45, Net loft". */
  when: string
  /** Minutes to the start; below 0 it runs. */
  startsInMin: number
  coming: number
  withoutBike: number
}>

export type TodayViewProps = Readonly<{
  next: NextClass | null
  today: Pick<Today, 'queue' | 'messages' | 'outOfUse' | 'firstHour'> &
    Readonly<{ due: readonly (Omit<DueLine, 'subject' | 'fromClassId'> & Readonly<{ what: string; href: string }>)[] }>
  seesNotes: boolean
  setsUp: boolean
}>

/** Refresh interval of queue and minutes, ms. */
const REFRESH_MS = 60_000
const MAX_QUEUE = 4

/** Home: the next class, who is set up next, and what waits for somebody. */
export function TodayView({ next, today, seesNotes, setsUp }: TodayViewProps) {
  useRefresh(REFRESH_MS)
  useStoredPage('/today')
  const { firstHour, queue, due, messages, outOfUse } = today
  const hasNothing = due.length === 0 && messages.length === 0 && outOfUse.length === 0
  return (
    <article className={styles.page}>
      <h1>Today</h1>
      <OutboxLine />
      {firstHour && <FirstHourStrip done={firstHour} />}
      <div className={styles.columns}>
        <section className={styles.next} aria-label="Next class">
          {next ? (
            <NextClassCard next={next} seesNotes={seesNotes} hasQueue={setsUp && queue.length > 0} />
          ) : (
            <>
              <h2 data-empty>No class this week</h2>
              <p className={styles.quiet}>Add a class, or import a calendar or a list.</p>
              <Link className={styles.more} href="/class">
                Open the timetable
              </Link>
            </>
          )}
          {next && queue.length > 0 && (
            <ol className={styles.queue} aria-label="Set up next">
              {queue.slice(0, MAX_QUEUE).map((item, i) => (
                <li key={item.memberId}>
                  <b>{item.number}</b>
                  <span>
                    {item.name} {item.stop && <StopMark why={item.stop} />}
                    <small>{NEED_TITLE[item.need]}</small>
                  </span>
                  <SetUpButton
                    type={i === 0 ? 'primary' : 'default'}
                    classId={next.id}
                    memberId={item.memberId}
                    bikeId={item.bikeId}
                  />
                </li>
              ))}
              {queue.length > MAX_QUEUE && (
                <li className={styles.rest}>
                  <Link href={`/class/${next.id}`}>{queue.length - MAX_QUEUE} more in the queue</Link>
                </li>
              )}
            </ol>
          )}
        </section>
        <section className={styles.waits} aria-label="What waits">
          <h2>What waits</h2>
          {hasNothing && (
            <p className={styles.quiet} data-empty>
              Nothing waits for you.
            </p>
          )}
          <ul>
            {due.map(({ memberId, name, what, isStop, href }, i) => (
              <li key={`${memberId} ${i}`}>
                <Link href={href}>
                  {isStop && <StopMark why={what} />}
                  <b>{name}</b>
                  <small>{what}</small>
                </Link>
              </li>
            ))}
            {messages.map(({ memberId, name }) => (
              <li key={`message ${memberId}`}>
                <Link href={`/riders/${memberId}`}>
                  <b>{name}</b>
                  <small>wrote from their own page</small>
                </Link>
              </li>
            ))}
            {outOfUse.map(({ bikeId, number, why }) => (
              <li key={bikeId}>
                <Link href={`/bikes/${bikeId}`}>
                  <b>Bike {number} is out of use</b>
                  <small>{why}</small>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </article>
  )
}

function NextClassCard({ next, seesNotes, hasQueue }: { next: NextClass; seesNotes: boolean; hasQueue: boolean }) {
  const runs = next.startsInMin <= 0
  const href = runs && seesNotes ? `/class/${next.id}/watch` : `/class/${next.id}`
  return (
    <>
      <h2>{next.title}</h2>
      <p className={styles.when}>
        <b>{startsIn(next.startsInMin)}</b> {next.when}
      </p>
      <p className={styles.quiet}>
        {next.coming === 0
          ? 'Nobody is booked yet.'
          : next.withoutBike > 0
            ? `${next.coming} riders, ${next.withoutBike} without a bike.`
            : `${next.coming} riders, all with a bike.`}
      </p>
      <Button type={hasQueue ? 'default' : 'primary'} size="large" href={href}>
        {runs && seesNotes ? 'Take notes' : next.withoutBike > 0 ? 'Place the riders' : 'Open the class'}
      </Button>
    </>
  )
}

function startsIn(minutes: number): string {
  if (minutes <= 0) return `Minute ${1 - minutes}`
  if (minutes < 120) return `In ${minutes} min`
  const hours = Math.round(minutes / 60)
  return hours < 36 ? `In ${hours} hours` : `In ${Math.round(hours / 24)} days`
}
