'use client'
import { Button } from 'antd'
import { useState } from 'react'
import { lazyDialog } from '../../kit/lazyDialog/lazyDialog'
import type { SetupContext } from '../steps/stepPanelProps'
import styles from '../steps/questions.module.css'

const AddLimit = lazyDialog(() => import('../../comfort/limits/AddLimit'))

/** Asks for the rider's lasting limits with the other questions: they act on this set-up at once. */
export function TalkLimits({ memberId, today, limitTexts }: Pick<SetupContext, 'memberId' | 'today' | 'limitTexts'>) {
  const [adding, setAdding] = useState(false)
  return (
    <div className={styles.limits} role="group" aria-label="Limits">
      <small>{limitTexts.length === 0 ? 'Injuries, operations, heart, one leg shorter?' : limitTexts.join('; ')}</small>
      <Button onClick={() => setAdding(true)}>Add a limit</Button>
      <AddLimit key={String(adding)} open={adding} memberId={memberId} today={today} close={() => setAdding(false)} />
    </div>
  )
}
