'use client'
import { useState } from 'react'
import { ScoreRow } from '../../kit/ScoreRow'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { ownCommand } from '../../commands/command'
import styles from './memberPage.module.css'

/** A change that is tried: what it is, how long it is left, and how it is now. */
export function OwnTrial({ token, trial }: { token: string; trial: OwnTrialSummary }) {
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [given, setGiven] = useState<number | null>(null)
  async function rate(rating: number) {
    if (!(await act(() => ownCommand(token, 'ownPage.rateOwnTrial', { trialId: trial.id, rating }, idFor({ rating })))))
      return
    forget()
    setGiven(rating)
  }
  return (
    <section className={styles.trial} aria-label="On trial">
      <p className={styles.tag}>on trial, {trial.age}</p>
      <h2>{trial.text}</h2>
      <p>It may feel odd at first: the body learned the old place. {trial.expects.length > 0 && `${trial.expects}.`}</p>
      <p className={styles.ask}>
        {trial.felt}: how is it now? <span>It was {trial.before} of 10.</span>
      </p>
      <ScoreRow label="How is it now? 0 nothing, 10 as bad as can be" given={given} busy={busy} give={rate} />
      <p className={styles.ends}>
        <span>nothing</span>
        <span>as bad as can be</span>
      </p>
      {given !== null && <p role="status">Kept: {given} of 10. You can say it again after the next ride.</p>}
    </section>
  )
}

export type OwnTrialSummary = Readonly<{
  id: string
  text: string
  felt: string
  age: string
  expects: string
  before: number
}>
