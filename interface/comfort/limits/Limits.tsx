'use client'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import AddLimit from './AddLimit'
import styles from './limits.module.css'

export type RiderLimitText = Readonly<{ id: string; text: string; waits: boolean }>

/** Time to take the end of a limit back, s. */
const UNDO_S = 6

/** What limits a rider for longer than one set-up; each acts wherever the rider is advised. */
export function Limits({
  memberId,
  limits,
  today,
}: Readonly<{ memberId: string; limits: readonly RiderLimitText[]; today: string }>) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [adding, setAdding] = useState(false)
  async function end({ id, text }: RiderLimitText) {
    if (!(await act(() => command('members.endLimit', { memberId, limitId: id })))) return
    router.refresh()
    const undo = () => act(() => command('members.reopenLimit', { memberId, limitId: id })).then(() => router.refresh())
    message.success(
      <>
        {text}: over.
        <Button type="link" onClick={undo}>
          Undo
        </Button>
      </>,
      UNDO_S,
    )
  }
  return (
    <section id="limits" className={styles.part} aria-label="Limits">
      <h2>Limits</h2>
      {limits.length === 0 ? (
        <p className={styles.none} data-empty>
          None recorded: injuries, operations, heart, pregnancy, how they ride elsewhere, whether they may be touched.
        </p>
      ) : (
        <ul className={styles.list}>
          {limits.map((limit) => (
            <li key={limit.id}>
              <span>
                {limit.text}
                {limit.waits && <em>their clinician’s word first</em>}
              </span>
              <Button size="large" className="no-print" loading={busy} onClick={() => end(limit)}>
                Over
              </Button>
            </li>
          ))}
        </ul>
      )}
      <Button size="large" className="no-print" onClick={() => setAdding(true)}>
        Add a limit
      </Button>
      {adding && <AddLimit open memberId={memberId} today={today} close={() => setAdding(false)} />}
    </section>
  )
}
