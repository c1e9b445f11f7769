'use client'
import { EllipsisOutlined, LeftOutlined, PlusOutlined, RightOutlined } from '@ant-design/icons'
import { Button, Dropdown, type MenuProps } from 'antd'
import { useState } from 'react'
import { useClassClock } from '../useClassClock'
import { lazyDialog } from '../../kit/lazyDialog/lazyDialog'
import { Link } from '../../kit/Link'
import styles from './timetable.module.css'

const AddClass = lazyDialog(() => import('./AddClass'))
const BringIn = lazyDialog(() => import('./BringIn'))

/** A class as the timetable shows it; times on the studio's clock. */
export type TimetableClass = Readonly<{
  id: string
  title: string
  day: string
  time: string
  until: string
  startMs: number
  endMs: number
  room: string | null
  teacher: string | null
  riders: number
  cancelled: boolean
}>

export type TimetableViewProps = Readonly<{
  days: readonly Readonly<{ day: string; name: string; today: boolean }>[]
  classes: readonly TimetableClass[]
  /** The Mondays before and after. */
  before: string
  after: string
  rooms: readonly Readonly<{ id: string; name: string }>[]
  teachers: readonly Readonly<{ id: string; name: string }>[]
  mayPlan: boolean
  mayArrange: boolean
  /** How booking service and calendar feed do, where there are any. */
  sources: readonly string[]
}>

/** A week of classes: today's first of all, the next one with its way in. */
export function TimetableView({
  days,
  classes,
  before,
  after,
  rooms,
  teachers,
  mayPlan,
  mayArrange,
  sources,
}: TimetableViewProps) {
  const { nowMs } = useClassClock()
  const [adding, setAdding] = useState(false)
  const [bringing, setBringing] = useState(false)
  const next = classes.find(({ endMs, cancelled }) => endMs > nowMs && !cancelled)
  const more: MenuProps['items'] = [
    ...(mayPlan
      ? [
          { key: 'import', label: 'Import classes', onClick: () => setBringing(true) },
          { key: 'cues', label: <Link href="/class/cues">Cues in your words</Link> },
        ]
      : []),
    {
      key: 'calendar',
      label: (
        <a href="/api/classes/calendar.ics" download>
          Calendar file (.ics)
        </a>
      ),
    },
    ...(mayArrange ? [{ key: 'rooms', label: <Link href="/rooms">Rooms</Link> }] : []),
  ]
  return (
    <article>
      <header className={styles.head}>
        <h1>Classes</h1>
        <nav className={styles.weeks} aria-label="Weeks">
          <Link href={`/class?week=${before}`} aria-label="The week before">
            <LeftOutlined />
          </Link>
          <span>
            {days[0].name} – {days[6].name}
          </span>
          <Link href={`/class?week=${after}`} aria-label="The week after">
            <RightOutlined />
          </Link>
        </nav>
        <div className={styles.ways}>
          <Dropdown trigger={['click']} menu={{ items: more }}>
            <Button size="large" icon={<EllipsisOutlined />}>
              More
            </Button>
          </Dropdown>
          <Button size="large" href="/class/open">
            Open floor
          </Button>
          {mayPlan && (
            <Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => setAdding(true)}>
              Add a class
            </Button>
          )}
        </div>
      </header>
      {classes.length === 0 && (
        <p className={styles.none} data-empty>
          No class this week.{' '}
          {mayPlan ? 'Add one, or import a calendar or a list.' : 'Whoever plans classes adds them.'}
        </p>
      )}
      <div className={styles.week}>
        {days.map(({ day, name, today }) => {
          const own = classes.filter((one) => one.day === day)
          if (own.length === 0 && !today) return null
          return (
            <section key={day} className={styles.day} aria-label={name}>
              <h2 className={today ? styles.today : undefined}>{today ? `Today, ${name}` : name}</h2>
              {own.length === 0 && <p className={styles.none}>No class today. Riders may come to the open floor.</p>}
              <ul>
                {own.map((one) => (
                  <li key={one.id}>
                    <Link
                      href={`/class/${one.id}`}
                      className={[
                        styles.one,
                        one === next && nowMs > 0 ? styles.next : '',
                        one.cancelled ? styles.off : '',
                        nowMs > 0 && one.endMs < nowMs ? styles.past : '',
                      ].join(' ')}
                    >
                      <b>{one.time}</b>
                      <span className={styles.title}>
                        {one.title}
                        <small>
                          until {one.until}
                          {one.room && `, ${one.room}`}
                          {one.teacher && `, with ${one.teacher}`}
                        </small>
                      </span>
                      <span className={styles.count}>
                        {one.cancelled ? 'cancelled' : `${one.riders} ${one.riders === 1 ? 'rider' : 'riders'}`}
                      </span>
                      {one === next && nowMs > 0 && <em>{untilStart(one, nowMs)}</em>}
                    </Link>
                  </li>
                ))}
              </ul>
            </section>
          )
        })}
      </div>
      {sources.map((line) => (
        <p key={line} className={styles.bookings}>
          {line}
        </p>
      ))}
      <AddClass
        open={adding}
        close={() => setAdding(false)}
        rooms={rooms}
        teachers={teachers}
        day={days.find((d) => d.today)?.day ?? days[0].day}
      />
      <BringIn open={bringing} close={() => setBringing(false)} />
    </article>
  )
}

function untilStart({ startMs }: TimetableClass, nowMs: number): string {
  const minutes = Math.ceil((startMs - nowMs) / 60_000)
  if (minutes <= 0) return 'running'
  if (minutes < 120) return `in ${minutes} min`
  return minutes < 2880 ? `in ${Math.round(minutes / 60)} h` : `in ${Math.round(minutes / 1440)} days`
}
