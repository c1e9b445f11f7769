'use client'
import { Button } from 'antd'
import { useState } from 'react'
import { ComplaintForm } from '../../comfort/reasons/ComplaintForm'
import { flagsOfInput, isStop, type ComplaintInput } from '@/core/comfort/complaintInput'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { ownCommand } from '../../commands/command'
import styles from './memberPage.module.css'

/** Something bothers the member: where, how strong, when; their instructor looks for the reason. */
export function Bothers({ token, referral }: { token: string; referral: string }) {
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [state, setState] = useState<'closed' | 'asking' | 'sent' | 'stopped'>('closed')
  async function send(complaint: ComplaintInput) {
    if (!(await act(() => ownCommand(token, 'ownPage.sendComplaint', { said: complaint }, idFor(complaint))))) return
    forget()
    // The stop sentence outlives the form.
    setState(isStop(flagsOfInput(complaint)) ? 'stopped' : 'sent')
  }
  return (
    <section className={styles.part} aria-label="Does something bother you">
      <h2>Does something bother you?</h2>
      {state === 'stopped' ? (
        <>
          <p className={styles.stop} role="alert">
            {referral}
          </p>
          <p role="status">Your instructor has been told.</p>
        </>
      ) : state === 'sent' ? (
        <p className={styles.lead} role="status">
          Thank you. Your instructor sees it with the next class, and looks for the reason.
        </p>
      ) : (
        <p>A few taps: where, how strong, when. What is found comes back to you as one change at a time.</p>
      )}
      {state === 'asking' ? (
        <ComplaintForm referral={referral} reporter="rider" busy={busy} send={send} submit="Send" />
      ) : (
        <Button size="large" block onClick={() => setState('asking')}>
          {state === 'closed' ? 'Tell us' : 'Say something else'}
        </Button>
      )}
    </section>
  )
}
