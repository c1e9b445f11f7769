'use client'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { PlanKind } from '@/core/riders/plans/plan'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import { AddPlan } from './AddPlan'
import styles from './limits.module.css'

export type RiderPlanText = Readonly<{ id: string; kind: PlanKind; text: string; isDue: boolean }>

/** Time to take it back, s. */
const UNDO_S = 6

/** What is to be done for a rider later; what is due also comes up before class, on the tile and after class. */
export function Plans({
  memberId,
  plans,
  today,
}: Readonly<{ memberId: string; plans: readonly RiderPlanText[]; today: string }>) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [adding, setAdding] = useState(false)
  async function write(name: 'members.tickPlan' | 'members.endPlan', { id: planId, text }: RiderPlanText) {
    if (!(await act(() => command(name, { memberId, planId })))) return
    router.refresh()
    const undo = () => act(() => command('members.reopenPlan', { memberId, planId })).then(() => router.refresh())
    message.success(
      <>
        {text}: {name === 'members.tickPlan' ? 'done.' : 'dropped.'}
        <Button type="link" onClick={undo}>
          Undo
        </Button>
      </>,
      UNDO_S,
    )
  }
  return (
    <section className={styles.part} aria-label="Plans">
      <h2>Plans</h2>
      {plans.length === 0 ? (
        <p className={styles.none} data-empty>
          Nothing planned: a promise for next time, cleats and shoes to look at by their age, a starter to raise.
        </p>
      ) : (
        <ul className={styles.list}>
          {plans.map((plan) => (
            <li key={plan.id}>
              <span>
                {plan.text}
                {plan.isDue && <em>due</em>}
              </span>
              <span className={`${styles.ways} no-print`}>
                {plan.kind !== 'starter' && (
                  <Button size="large" loading={busy} onClick={() => write('members.tickPlan', plan)}>
                    Done
                  </Button>
                )}
                <Button size="large" type="text" loading={busy} onClick={() => write('members.endPlan', plan)}>
                  Drop
                </Button>
              </span>
            </li>
          ))}
        </ul>
      )}
      <Button size="large" className="no-print" onClick={() => setAdding(true)}>
        Add a plan
      </Button>
      {adding && <AddPlan memberId={memberId} today={today} close={() => setAdding(false)} />}
    </section>
  )
}
