'use client'
import { EditOutlined } from '@ant-design/icons'
import { Button } from 'antd'
import Link from 'next/link'
import { useState, type ReactNode } from 'react'
import styles from './classHead.module.css'
import type { ClassInfo, Moment } from './classTypes'
import { EditClass } from '../classForm/EditClass'
import { useClassClock } from './useClassClock'

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
  const [isEditing, setEditing] = useState(false)
  const moments: readonly Moment[] = seesNotes ? ['before', 'watch', 'after', 'blocks'] : ['before']
  return (
    <header className={`${styles.head} no-print`}>
      <div className={styles.name}>
        <h1>
          {info.title}
          {info.mayEdit && (
            <Button
              type="text"
              size="large"
              icon={<EditOutlined />}
              aria-label="Edit class"
              title="Edit class"
              onClick={() => setEditing(true)}
            />
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
      {isEditing && <EditClass classId={info.id} close={() => setEditing(false)} />}
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
