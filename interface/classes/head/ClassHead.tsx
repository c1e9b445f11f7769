'use client'
import { useState, type ReactNode } from 'react'
import styles from './classHead.module.css'
import type { ClassInfo, Moment } from '../classTypes'
import { BarButton } from '../../kit/BarButton'
import { lazyDialog } from '../../kit/lazyDialog/lazyDialog'
import { useClassClock } from '../useClassClock'
import { Link } from '../../kit/Link'

// Apart from the page: the floor during a class does without the component library.
const EditClass = lazyDialog(() => import('../timetable/EditClass'))

const NAME: Readonly<Record<Moment, string>> = { before: 'Before', watch: 'During', after: 'After', blocks: 'Plan' }

/** Name, time and clock of a class, and the way between its moments. */
export function ClassHead({
  info,
  moment,
  seesNotes,
  children,
}: {
  info: ClassInfo
  moment: Moment
  seesNotes: boolean
  children?: ReactNode
}) {
  const { nowMs, aheadMs } = useClassClock()
  // Null until it is first opened: nothing is fetched before.
  const [isEditing, setEditing] = useState<boolean | null>(null)
  const moments: readonly Moment[] = seesNotes ? ['before', 'watch', 'after', 'blocks'] : ['before']
  return (
    <header className={`${styles.head} no-print`}>
      <div className={styles.name}>
        <h1>
          {info.title}
          {info.mayEdit && (
            <BarButton
              className={styles.pencil}
              aria-label="Edit class"
              title="Edit class"
              onClick={() => setEditing(true)}
            >
              <svg viewBox="0 0 24 24" aria-hidden="true">
                <path d="M4 21h16M5 17l1-4L15 4l3 3L9 16Z" />
              </svg>
            </BarButton>
          )}
        </h1>
        <p>
          {info.day}
          {!info.open && `, ${info.span}`}
          {info.roomName && `, ${info.roomName}`}
          {info.teacher && <span className={styles.teacher}>, with {info.teacher}</span>}
          {info.cancelled && <b className={styles.off}> cancelled</b>}
        </p>
      </div>
      {!info.open && nowMs > 0 && <ClockFace info={info} nowMs={nowMs} />}
      {children && <div className={styles.ways}>{children}</div>}
      <nav className={styles.moments} aria-label="Moments of the class">
        {moments.map((one) => (
          <Link
            key={one}
            href={one === 'before' ? `/class/${info.id}` : `/class/${info.id}/${one}`}
            className={one === moment ? styles.here : styles.moment}
            aria-current={one === moment ? 'page' : undefined}
          >
            {NAME[one]}
          </Link>
        ))}
      </nav>
      {isEditing !== null && <EditClass open={isEditing} classId={info.id} close={() => setEditing(false)} />}
      {Math.abs(aheadMs) > 0 && (
        <p className={styles.clockOff} role="status">
          This device’s clock runs {formatSpan(Math.abs(aheadMs))} {aheadMs > 0 ? 'ahead' : 'behind'}; the studio’s is
          used.
        </p>
      )}
    </header>
  )
}

function ClockFace({ info, nowMs }: { info: ClassInfo; nowMs: number }) {
  const minute = (nowMs - info.startMs) / 60_000
  const left = Math.ceil(-minute)
  const [big, small] =
    nowMs >= info.endMs
      ? ['over', '']
      : minute >= 0
        ? [`Minute ${Math.floor(minute) + 1}`, '']
        : left >= 120
          ? [`${Math.round(left / 60)} h`, 'to the start']
          : [`${left} min`, 'to the start']
  return (
    <p className={minute < 0 && left <= 10 ? styles.soon : styles.clock}>
      <b>{big}</b> {small}
    </p>
  )
}

const formatSpan = (ms: number): string =>
  ms < 90_000
    ? `${Math.round(ms / 1000)} s`
    : ms < 5_400_000
      ? `${Math.round(ms / 60_000)} min`
      : `${Math.round(ms / 3_600_000)} h`
