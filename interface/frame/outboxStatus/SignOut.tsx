'use client'
import { LockOutlined, LogoutOutlined } from '@ant-design/icons'
import { useState, useTransition } from 'react'
import { BarButton } from '../../kit/BarButton'
import { lazyDialog } from '../../kit/lazyDialog/lazyDialog'
import { signOut } from '../signIn/actions'
import { lockedAddress, useIdleLock } from './useIdleLock'
import { useOutbox } from '../../offline/OutboxProvider'

const SignOutDialog = lazyDialog(() => import('./SignOutDialog'))

/** How long signing out waits for what is still under way, ms. */
const PATIENCE_MS = 4000

/**
 * Signs out; with unsent entries of the user, after a confirmation. On a shared tablet, which locks after
 * `idleMinutes`, the next person or the same one comes back to this page.
 */
export function SignOut({ idleMinutes }: Readonly<{ idleMinutes: number | undefined }>) {
  const { entries, offline, sendNow, settled, forgetDevice } = useOutbox()
  const [asking, setAsking] = useState(false)
  const [sending, setSending] = useState(false)
  const [leaving, leave] = useTransition()
  const mine = entries ?? []
  useIdleLock(idleMinutes, forgetDevice)
  const out = () =>
    leave(async () => {
      await forgetDevice().catch(() => undefined)
      await signOut()
      // A new document: nothing of this person stays in the page's memory.
      window.location.replace(idleMinutes ? lockedAddress() : '/sign-in')
      await new Promise(() => undefined)
    })

  /** Recent taps are usually being sent: wait for them briefly before the confirmation. */
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
      <BarButton
        aria-label={idleMinutes ? 'Lock' : 'Sign out'}
        title={idleMinutes ? 'Lock' : 'Sign out'}
        disabled={leaving || sending}
        aria-busy={leaving || sending}
        onClick={outOnceSent}
      >
        {idleMinutes ? <LockOutlined /> : <LogoutOutlined />}
      </BarButton>
      <SignOutDialog
        open={asking}
        close={() => setAsking(false)}
        left={mine.length}
        leaving={leaving}
        isShared={!!idleMinutes}
        out={out}
      />
    </>
  )
}
