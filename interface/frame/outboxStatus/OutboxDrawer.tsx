'use client'
import { Button, Drawer } from 'antd'
import '@/interface/kit/antd/drawer.generated.css'
import dayjs from 'dayjs'
import { formatEntry, formatTaps } from '@/core/messages/outbox'
import { AntdProvider } from '../../kit/theme/AntdProvider'
import { useOutbox } from '../../offline/OutboxProvider'
import parts from './parts.module.css'
import styles from './outboxStatus.module.css'

/** What is still on this device, one by one, and what to do about it. */
export default function OutboxDrawer({ open, close }: Readonly<{ open: boolean; close: () => void }>) {
  return (
    <AntdProvider inside>
      <Drawer open={open} onClose={close} title="Still on this device" size={440} destroyOnHidden>
        <OutboxList />
      </Drawer>
    </AntdProvider>
  )
}

function OutboxList() {
  const { entries, others, locked, offline, fragile, sendNow, retry, discard } = useOutbox()
  const mine = entries ?? []
  const waiting = mine.some((e) => e.state !== 'refused')
  const signedOut = mine.some((e) => e.state === 'signedOut')
  return (
    <>
      {mine.length + locked.count + others === 0 && (
        <p className={parts.quiet}>Everything is on the studio’s server.</p>
      )}
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
      <LockedEntries />
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

/** Entries of this person that cannot be opened: without network for the moment, or for good. */
function LockedEntries() {
  const { locked, discardLocked } = useOutbox()
  if (locked.count === 0) return null
  const taps = formatTaps(locked.count)
  if (!locked.isForGood) return <p className={parts.quiet}>{taps} of yours are locked until the server is reached.</p>
  return (
    <>
      <p className={parts.warn}>{taps} of yours cannot be opened: the studio’s server has another key for you now.</p>
      <Button size="large" danger onClick={discardLocked}>
        Throw away
      </Button>
    </>
  )
}
