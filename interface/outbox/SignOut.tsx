'use client'
import { LogoutOutlined } from '@ant-design/icons'
import { Button, Modal } from 'antd'
import { useState, useTransition } from 'react'
import { forgetPages } from '../offline/keepPage'
import { signOut } from '../signIn/actions'
import { formatTaps } from '@/core/messages/outbox'
import { useOutbox } from './OutboxProvider'
import parts from './parts.module.css'

/** How long signing out waits for what is still under way, ms. */
const PATIENCE_MS = 4000

/** Signs out; with something of one's own still on the device it asks first. */
export function SignOut() {
  const { author, entries, offline, sendNow, settled } = useOutbox()
  const [asking, setAsking] = useState(false)
  const [sending, setSending] = useState(false)
  const [leaving, leave] = useTransition()
  const mine = (entries ?? []).filter((e) => e.entry.author === author.id)
  const out = () =>
    leave(async () => {
      await forgetPages().catch(() => undefined)
      await signOut()
    })

  /** What was tapped a moment ago is nearly always under way: it is waited for a little before anybody is asked. */
  async function outOnceSent() {
    if (mine.length === 0) return out()
    setSending(true)
    sendNow()
    const all = Promise.all(mine.map((e) => settled(e.entry.id))).then((ends) => ends.every((end) => end === 'sent'))
    const sent =
      !offline &&
      (await Promise.race([all, new Promise<false>((resolve) => setTimeout(() => resolve(false), PATIENCE_MS))]))
    setSending(false)
    if (sent) out()
    else setAsking(true)
  }
  return (
    <>
      <Button
        type="text"
        icon={<LogoutOutlined />}
        aria-label="Sign out"
        title="Sign out"
        loading={leaving || sending}
        onClick={outOnceSent}
      />
      <Modal
        open={asking}
        onCancel={() => setAsking(false)}
        footer={null}
        title={mine.length > 0 ? 'Not everything is sent yet' : 'Everything is sent'}
        width={440}
      >
        <p className={parts.quiet}>
          {mine.length > 0
            ? `${formatTaps(mine.length)} of yours ${mine.length === 1 ? 'is' : 'are'} only on this ` +
              `device${offline ? ', and there is no network' : ''}. Signed out, they stay here and are ` +
              `sent when ${author.name} signs in on this device again.`
            : 'Nothing of yours is left on this device.'}
        </p>
        <div className={parts.ways}>
          {mine.length > 0 && (
            <Button size="large" onClick={sendNow}>
              Send now
            </Button>
          )}
          <Button
            size="large"
            type={mine.length > 0 ? 'default' : 'primary'}
            danger={mine.length > 0}
            loading={leaving}
            onClick={out}
          >
            {mine.length > 0 ? 'Sign out all the same' : 'Sign out'}
          </Button>
        </div>
      </Modal>
    </>
  )
}
