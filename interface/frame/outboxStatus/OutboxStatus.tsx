'use client'
import { CloudSyncOutlined, ExclamationCircleOutlined } from '@ant-design/icons'
import { useState } from 'react'
import { BarButton } from '../../kit/BarButton'
import { lazyDialog } from '../../kit/lazyDialog/lazyDialog'
import { useOutbox } from '../../offline/OutboxProvider'
import styles from './outboxStatus.module.css'

const OutboxDrawer = lazyDialog(() => import('./OutboxDrawer'))

/** What is still on this device: nothing to see while all is sent; otherwise a pill that opens the list. */
export function OutboxStatus() {
  const { entries, others, locked, offline, noRoom, fragile } = useOutbox()
  const [open, setOpen] = useState(false)
  const mine = entries ?? []
  const refused = mine.filter((e) => e.state === 'refused').length
  const signedOut = mine.some((e) => e.state === 'signedOut')
  const waiting = mine.length - refused
  const [count, words] =
    refused > 0
      ? [refused, 'not taken']
      : waiting > 0 && (offline || noRoom || fragile || signedOut)
        ? [waiting, 'on this device']
        : locked.count > 0
          ? [locked.count, 'on this device']
          : [others, 'of someone else']
  return (
    <>
      <span aria-live="polite" className={styles.live}>
        {count > 0 && (
          <BarButton
            className={refused > 0 ? styles.refusedPill : styles.pill}
            onClick={() => setOpen(true)}
            title={`${count} ${words}`}
          >
            {refused > 0 ? <ExclamationCircleOutlined /> : <CloudSyncOutlined />}
            {count} <span className={styles.words}>{words}</span>
          </BarButton>
        )}
      </span>
      <OutboxDrawer open={open} close={() => setOpen(false)} />
    </>
  )
}
