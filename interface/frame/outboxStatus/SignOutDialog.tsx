'use client'
import { Button, Modal } from 'antd'
import { formatTaps } from '@/core/messages/outbox'
import { AntdProvider } from '../../kit/theme/AntdProvider'
import { useOutbox } from '../../offline/OutboxProvider'
import parts from './parts.module.css'

type Props = Readonly<{
  open: boolean
  close: () => void
  /** Entries of this person that are only on this device. */
  left: number
  leaving: boolean
  /** On a shared tablet, which is locked instead. */
  isShared: boolean
  out: () => void
}>

/** Confirmation before a sign-out with unsent entries. */
export default function SignOutDialog({ open, close, left, leaving, isShared, out }: Props) {
  const { author, offline, sendNow } = useOutbox()
  const verb = isShared ? 'Lock' : 'Sign out'
  return (
    <AntdProvider inside>
      <Modal
        open={open}
        onCancel={close}
        footer={null}
        title={left > 0 ? 'Not everything is sent yet' : 'Everything is sent'}
        width={440}
      >
        <p className={parts.quiet}>
          {left > 0
            ? `${formatTaps(left)} of yours ${left === 1 ? 'is' : 'are'} only on this ` +
              `device${offline ? ', and there is no network' : ''}. ` +
              `${isShared ? 'Locked' : 'Signed out'}, they stay here, and are sent when ${author.name} opens this ` +
              `device again.`
            : 'Nothing of yours is left on this device.'}
        </p>
        <div className={parts.ways}>
          {left > 0 && (
            <Button size="large" onClick={sendNow}>
              Send now
            </Button>
          )}
          <Button
            size="large"
            type={left > 0 ? 'default' : 'primary'}
            danger={left > 0}
            loading={leaving}
            onClick={out}
          >
            {left > 0 ? `${verb} all the same` : verb}
          </Button>
        </div>
      </Modal>
    </AntdProvider>
  )
}
