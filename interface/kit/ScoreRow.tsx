import { SCORES } from '@/core/classes/watch/comfort'
import styles from './scoreRow.module.css'

/** 0 to 10 in a row of buttons; `label` names their meaning. */
export function ScoreRow({
  label,
  given,
  busy = false,
  give,
}: {
  label: string
  given: number | null
  busy?: boolean
  give: (score: number) => void
}) {
  return (
    <div className={styles.row} role="group" aria-label={label}>
      {SCORES.map((score) => (
        <button key={score} type="button" disabled={busy} aria-pressed={given === score} onClick={() => give(score)}>
          {score}
        </button>
      ))}
    </div>
  )
}
