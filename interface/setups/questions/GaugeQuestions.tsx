import { Button } from 'antd'
import { meanReading, SAMPLES, type GaugeState } from '@/core/riders/gauge/protocol'
import { latestSinceSet } from '../steps/flow'
import { useGauge } from '../gauge/useGauge'
import styles from '../steps/questions.module.css'
import type { StepPanelProps } from '../steps/stepPanelProps'

/**
 * The angle gauge's live reading: press the button down to take it, three times; without a signal one types instead.
 */
export function GaugeQuestions({ rows, shown: at, actions: { onReplace, onCheck } }: StepPanelProps) {
  const { state, act } = useGauge()
  const taken = meanReading(state)
  const latest = latestSinceSet(rows, 'kneeAngle')
  const latestDeg = latest?.row.kind === 'kneeAngle' && latest.row.by === 'gauge' ? latest.row.deg : null
  const side = state.last?.side
  return (
    <div className={styles.gauge}>
      <p className={styles.live} aria-live="off" data-signal={state.signal}>
        <b>{state.last ? `${state.last.deg.toFixed(1)}°` : '–'}</b>
        <span>{formatSignal(state)}</span>
      </p>
      <button
        type="button"
        className={styles.hold}
        disabled={state.signal !== 'live'}
        aria-pressed={state.held !== null}
        onPointerDown={() => act({ kind: 'hold' })}
        onPointerUp={() => act({ kind: 'release' })}
        onPointerCancel={() => act({ kind: 'release' })}
        onKeyDown={(e) => e.key === ' ' && !e.repeat && act({ kind: 'hold' })}
        onKeyUp={(e) => e.key === ' ' && act({ kind: 'release' })}
      >
        {state.held ? 'Let go to take it' : 'Hold to take'}
      </button>
      <p className={styles.takes}>
        {Array.from({ length: SAMPLES }, (_, i) => (
          <b key={i}>{state.takes[i] === undefined ? '·' : `${state.takes[i].toFixed(0)}°`}</b>
        ))}
        <span>{formatTaken(state)}</span>
      </p>
      {taken && (
        <Button
          size="large"
          type={state.takes.length >= SAMPLES && latestDeg !== taken.deg ? 'primary' : 'default'}
          onClick={() =>
            onReplace(latest, { kind: 'kneeAngle', deg: taken.deg, by: 'gauge', at, ...(side && { side }) })
          }
        >
          {latestDeg === taken.deg ? `${taken.deg}° kept` : `Keep ${taken.deg}°`}
        </Button>
      )}
      {state.signal !== 'live' && (
        <Button size="large" onClick={() => onCheck('kneeAngle')}>
          Type it instead
        </Button>
      )}
    </div>
  )
}

function formatSignal({ signal, last }: GaugeState): string {
  if (signal === 'none') return 'looking for the gauge …'
  if (signal === 'lost') return 'signal lost; what was taken is still here'
  if (last && last.axis !== 'knee') return `reads the ${last.axis}: turn it to the knee’s axis`
  return last ? `${last.side} leg` : ''
}

function formatTaken(state: GaugeState): string {
  if (state.refused === 'short') return 'Hold a little longer.'
  if (state.refused === 'moving') return 'The leg moved: hold it still.'
  const taken = meanReading(state)
  if (!taken) return 'three holds give mean and spread'
  return state.takes.length < 2 ? `${SAMPLES - state.takes.length} more` : `± ${taken.sd.toFixed(1)}°`
}
