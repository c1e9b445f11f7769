'use client'
import { LogoutOutlined } from '@ant-design/icons'
import { useState, useTransition } from 'react'
import { BarButton } from '../../kit/BarButton'
import { lazyDialog } from '../../kit/lazyDialog/lazyDialog'
import { forgetPages } from '../../offline/storePage'
import { signOut } from '../signIn/actions'
import { useOutbox } from '../../offline/OutboxProvider'

const SignOutDialog = lazyDialog(() => import('./SignOutDialog'))

/** How long signing out waits for what is still under way, ms. */
const PATIENCE_MS = 4000

/** Signs out; with unsent entries of the user, after a confirmation. */
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
      // A new document: nothing of this person stays in the page's memory.
      window.location.replace('/sign-in')
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
        aria-label="Sign out"
        title="Sign out"
        disabled={leaving || sending}
        aria-busy={leaving || sending}
        onClick={outOnceSent}
      >
        <LogoutOutlined />
      </BarButton>
      <SignOutDialog open={asking} close={() => setAsking(false)} left={mine.length} leaving={leaving} out={out} />
    </>
  )
}
