'use client'
import { Button } from 'antd'
import { useSyncExternalStore } from 'react'
import { FIRST_HOUR_STEPS, FIRST_HOUR_TEXT } from '@/core/messages/studio/firstHour'
import type { FirstHourDone } from '@/server/pages/studio/firstHour'
import styles from './today.module.css'

/** Set once somebody has put the list away on this device. */
const KEY = 'first-hour-away'
const listeners = new Set<() => void>()
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}
/** Where a device forbids storage: away until the page is left. */
let isAwayHere = false
function isAway(): boolean {
  try {
    return isAwayHere || localStorage.getItem(KEY) !== null
  } catch {
    return isAwayHere
  }
}
function putAway() {
  isAwayHere = true
  try {
    localStorage.setItem(KEY, '1')
  } catch {
    // As above.
  }
  for (const listener of listeners) listener()
}

/** On the first page: how far the first hour is, what comes next, and away with it. */
export function FirstHourStrip({ done }: Readonly<{ done: FirstHourDone }>) {
  const away = useSyncExternalStore(subscribe, isAway, () => true)
  const next = FIRST_HOUR_STEPS.find((step) => !done[step])
  if (away || !next) return null
  const count = FIRST_HOUR_STEPS.filter((step) => done[step]).length
  const hasRider = done.bikes && done.rider
  return (
    <section className={styles.firstHour} aria-label="First hour">
      <div>
        <b>First hour</b>
        <small>
          {count} of {FIRST_HOUR_STEPS.length} done. Next: {FIRST_HOUR_TEXT[next].name.toLowerCase()}.
        </small>
      </div>
      <div>
        {hasRider && (
          <Button size="large" type="text" onClick={putAway}>
            Put it away
          </Button>
        )}
        <Button size="large" type={hasRider ? 'default' : 'primary'} href="/studio/first-hour">
          Go on
        </Button>
      </div>
      <div className={styles.bars} aria-hidden="true">
        {FIRST_HOUR_STEPS.map((step) => (
          <i key={step} data-done={done[step] || undefined} />
        ))}
      </div>
    </section>
  )
}
