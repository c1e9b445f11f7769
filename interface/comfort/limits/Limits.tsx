'use client'
import { Button } from 'antd'
import { useState } from 'react'
import { command } from '../../commands/command'
import { useUndoable } from '../../commands/useUndoable'
import AddLimit from './AddLimit'
import styles from './limits.module.css'

export type RiderLimitText = Readonly<{ id: string; text: string; waits: boolean }>

/** What limits a rider for longer than one set-up; each acts wherever the rider is advised. */
export function Limits({
  memberId,
  limits,
  today,
}: Readonly<{ memberId: string; limits: readonly RiderLimitText[]; today: string }>) {
  const { change, busy } = useUndoable()
  const [adding, setAdding] = useState(false)
  const end = ({ id: limitId, text }: RiderLimitText) =>
    change({
      action: () => command('members.endLimit', { memberId, limitId }),
      done: `${text}: over.`,
      undo: () => command('members.reopenLimit', { memberId, limitId }),
    })
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
