'use client'
import { Button } from 'antd'
import { useState } from 'react'
import type { PlanKind } from '@/core/riders/plans/plan'
import { command } from '../../commands/command'
import { useUndoable } from '../../commands/useUndoable'
import { AddPlan } from './AddPlan'
import styles from './limits.module.css'

export type RiderPlanText = Readonly<{ id: string; kind: PlanKind; text: string; isDue: boolean }>

/** What is to be done for a rider later; what is due also comes up before class, on the tile and after class. */
export function Plans({
  memberId,
  plans,
  today,
}: Readonly<{ memberId: string; plans: readonly RiderPlanText[]; today: string }>) {
  const { change, busy } = useUndoable()
  const [adding, setAdding] = useState(false)
  const write = (name: 'members.tickPlan' | 'members.endPlan', { id: planId, text }: RiderPlanText) =>
    change({
      action: () => command(name, { memberId, planId }),
      done: `${text}: ${name === 'members.tickPlan' ? 'done.' : 'dropped.'}`,
      undo: () => command('members.reopenPlan', { memberId, planId }),
    })
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
