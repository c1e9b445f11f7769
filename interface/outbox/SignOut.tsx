'use client'
import { LogoutOutlined } from '@ant-design/icons'
import { Button, Modal } from 'antd'
import { useState, useTransition } from 'react'
import { signOut } from '../signIn/actions'
import { tapsSaid } from './entrySaid'
import { useOutbox } from './OutboxProvider'
import styles from './outbox.module.css'

/** Signs out; with something of one's own still on the device it asks first. */
export function SignOut() {
  const { author, entries, offline, sendNow } = useOutbox()
  const [asking, setAsking] = useState(false)
  const [leaving, leave] = useTransition()
  const mine = (entries ?? []).filter((e) => e.entry.author === author.id)
  const out = () => leave(() => signOut())
  return (
    <>
      <Button type="text" icon={<LogoutOutlined />} aria-label="Sign out" title="Sign out" loading={leaving} onClick={() => (mine.length > 0 ? setAsking(true) : out())} />
      <Modal open={asking} onCancel={() => setAsking(false)} footer={null} title={mine.length > 0 ? 'Not everything is sent yet' : 'Everything is sent'} width={440}>
        <p className={styles.quiet}>
          {mine.length > 0
            ? `${tapsSaid(mine.length)} of yours ${mine.length === 1 ? 'is' : 'are'} only on this device${offline ? ', and there is no network' : ''}. Signed out, they stay here and are sent when ${author.name} signs in on this device again.`
            : 'Nothing of yours is left on this device.'}
        </p>
        <div className={styles.ways}>
          {mine.length > 0 && (
            <Button size="large" onClick={sendNow}>
              Send now
            </Button>
          )}
          <Button size="large" type={mine.length > 0 ? 'default' : 'primary'} danger={mine.length > 0} loading={leaving} onClick={out}>
            {mine.length > 0 ? 'Sign out all the same' : 'Sign out'}
          </Button>
        </div>
      </Modal>
    </>
  )
}
