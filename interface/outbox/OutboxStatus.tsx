'use client'
import { CloudSyncOutlined, ExclamationCircleOutlined } from '@ant-design/icons'
import { Button, Drawer } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { formatEntry, formatTaps } from '@/core/messages/outbox'
import { useOutbox } from './OutboxProvider'
import parts from './parts.module.css'
import styles from './outboxStatus.module.css'
import type { StoredEntry } from './store'

/** What is still on this device: nothing to see while all is sent; otherwise a pill that opens the list. */
export function OutboxStatus() {
  const { author, entries, offline, fragile } = useOutbox()
  const [open, setOpen] = useState(false)
  const mine = (entries ?? []).filter((e) => e.entry.author === author.id)
  const others = (entries ?? []).length - mine.length
  const refused = mine.filter((e) => e.state === 'refused').length
  const signedOut = mine.some((e) => e.state === 'signedOut')
  const waiting = mine.length - refused
  const text =
    refused > 0
      ? `${refused} not taken`
      : waiting > 0 && (offline || fragile || signedOut)
        ? `${waiting} on this device`
        : others > 0
          ? `${others} of someone else`
          : ''
  return (
    <>
      <span aria-live="polite" className={styles.live}>
        {text && (
          <Button
            type="text"
            className={refused > 0 ? styles.refusedPill : styles.pill}
            icon={refused > 0 ? <ExclamationCircleOutlined /> : <CloudSyncOutlined />}
            onClick={() => setOpen(true)}
          >
            {text}
          </Button>
        )}
      </span>
      <Drawer open={open} onClose={() => setOpen(false)} title="Still on this device" size={440} destroyOnHidden>
        <OutboxList mine={mine} others={others} />
      </Drawer>
    </>
  )
}

function OutboxList({ mine, others }: { mine: readonly StoredEntry[]; others: number }) {
  const { offline, fragile, sendNow, retry, discard } = useOutbox()
  const waiting = mine.some((e) => e.state !== 'refused')
  const signedOut = mine.some((e) => e.state === 'signedOut')
  return (
    <>
      {mine.length === 0 && others === 0 && <p className={parts.quiet}>Everything is on the studio’s server.</p>}
      {fragile && (
        <p className={parts.warn}>
          This device’s storage is full or closed: keep this page open until everything is sent.
        </p>
      )}
      {signedOut ? (
        <p className={parts.warn}>
          You are signed out. This is sent when you <a href="/sign-in">sign in</a> on this device again.
        </p>
      ) : (
        waiting && (
          <p className={parts.quiet}>
            {offline ? 'No network. It is sent by itself when the network is back.' : 'Being sent.'}
          </p>
        )
      )}
      <ul className={styles.list}>
        {mine.map((stored) => (
          <li key={stored.seq}>
            <p>
              <b>{formatEntry(stored.entry)}</b>
              <span>{dayjs(stored.entry.madeAtMs).format('HH:mm')}</span>
            </p>
            {stored.state === 'refused' && (
              <>
                <p className={parts.warn}>Not taken: {stored.say}.</p>
                <div className={parts.ways}>
                  <Button size="large" onClick={() => retry(stored)}>
                    Try again
                  </Button>
                  <Button size="large" danger onClick={() => discard(stored)}>
                    Throw away
                  </Button>
                </div>
              </>
            )}
          </li>
        ))}
      </ul>
      {waiting && !signedOut && (
        <Button size="large" block onClick={sendNow}>
          Send now
        </Button>
      )}
      {others > 0 && (
        <p className={parts.quiet}>
          {formatTaps(others)} of somebody else wait here; they are sent when that person signs in on this device.
        </p>
      )}
    </>
  )
}
