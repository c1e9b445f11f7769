'use client'
import { App, Button } from 'antd'
import type { TrialOutcome } from '@/core/comfort/changes/trial'
import { capitalized, lowered } from '@/core/messages/words/phrases'
import { ScoreRow } from '../../kit/ScoreRow'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { command } from '../../commands/command'
import styles from './trialCard.module.css'
import type { TrialSummary } from './trialSummary'

const ENDS: readonly (readonly [TrialOutcome, string])[] = [
  ['keep', 'Keep it'],
  ['undo', 'Go back'],
  ['next', 'Go back, try the next'],
]

/** A change on trial: what, why, what it should do, how it goes, and its end. */
export function TrialCard({
  trial,
  mayEnd,
  mayRate,
  changed,
}: {
  trial: TrialSummary
  mayEnd: boolean
  mayRate: boolean
  changed: () => void
}) {
  const { modal } = App.useApp()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  async function give(rating: number) {
    if (!(await act(() => command('comfort.rate', { trialId: trial.id, rating }, idFor({ rating }))))) return
    forget()
    changed()
  }
  async function end(outcome: TrialOutcome, leaveNumbers = false) {
    const done = await act(async () => {
      const result = await command('comfort.finishTrial', { trialId: trial.id, outcome, leaveNumbers })
      if (result.outcome === 'refused' && result.code === 'trialNumbersChanged') {
        modal.confirm({
          title: 'The number was changed again since',
          content: 'There is nothing to go back to. End the trial, and leave the numbers as they are now?',
          okText: 'End it so',
          onOk: () => end(outcome, true),
        })
        return { outcome: 'kept' as const, isRequested: true }
      }
      return result
    })
    if (done && !('asked' in done)) changed()
  }
  const saddle = trial.bikeNumber !== null
  return (
    <section className={styles.card} aria-label="On trial">
      <header>
        <span className={styles.pill}>on trial</span>
        <span className={styles.age}>{trial.age}</span>
      </header>
      <h3>
        {trial.text}
        {saddle && <span>, bike {trial.bikeNumber}</span>}
      </h3>
      <p className={styles.quiet}>
        Why: {trial.cause.toLowerCase()}
        {trial.because.length > 0 && ` (${trial.because.slice(0, 2).map(lowered).join('; ')})`}. What helps there:{' '}
        {lowered(trial.remedy)}.
      </p>
      <p className={styles.quiet}>
        Since {trial.since}, {trial.by}.{trial.reason && ` Beside another trial, because: ${trial.reason}.`}
      </p>
      {trial.expects.length > 0 && <p className={styles.quiet}>{capitalized(trial.expects.join('; '))}.</p>}
      <p className={styles.ratings}>
        {trial.ratings}
        {!trial.rated && <span> before; not said since</span>}
      </p>
      <p className={trial.proposed ? styles.advice : undefined}>{trial.advice}</p>
      {mayRate && (
        <ScoreRow label="How is it now? 0 nothing, 10 as bad as can be" given={null} busy={busy} give={give} />
      )}
      {mayEnd && (
        <div className={styles.ends}>
          {ENDS.map(([outcome, name]) => (
            <Button
              key={outcome}
              size="large"
              type={trial.proposed === outcome ? 'primary' : 'default'}
              disabled={busy}
              onClick={() => end(outcome)}
            >
              {name}
            </Button>
          ))}
        </div>
      )}
      {saddle && mayEnd && (
        <p className={styles.quiet}>
          Going back means setting the saddle of bike {trial.bikeNumber} by hand, and laying the board on it anew.
        </p>
      )}
    </section>
  )
}
