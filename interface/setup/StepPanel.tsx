'use client'
import { formatMarks } from '@/core/messages/labels'
import { isBodyEvidence } from '@/core/evidence/evidence'
import { formatPrompt } from '@/core/messages/setupPrompts'
import { Button } from 'antd'
import { BarsQuestions, BesideQuestions, CranksQuestions, KneeQuestions, Numbers, TalkQuestions } from './questions'
import { differingAxes, rowsSinceSet, latestSinceSet, marksAfter, marksWithBars, stepAfter, STEP_NAME } from './flow'
import type { StepPanelProps } from './stepPanelProps'
import { stepPrompt } from './stepPrompt'
import styles from './stepPanel.module.css'

const QUESTIONS = {
  talk: TalkQuestions,
  beside: BesideQuestions,
  knee: KneeQuestions,
  cranks: CranksQuestions,
  bars: BarsQuestions,
  numbers: Numbers,
}

/** What to do next in one sentence, the answers as large buttons, and the one step forward. */
export function StepPanel(props: StepPanelProps) {
  const { step, answer, working, trouble } = props
  const { sentence, small } = formatPrompt(stepPrompt(props))
  const Questions = QUESTIONS[step]
  return (
    <section className={styles.dock} aria-label="What to do next" aria-busy={working}>
      <div className={styles.saying} aria-live="polite">
        <p className={`${styles.sentence} ${working ? styles.working : ''}`}>{sentence}</p>
        <p className={styles.small}>{small}</p>
        {answer && answer.doubts.length > 0 && <p className={styles.doubt}>{answer.doubts[0].say}</p>}
        {answer && step !== 'talk' && (
          <details className={styles.why}>
            <summary>Why</summary>
            <ul>
              {answer.next.because.map((line) => (
                <li key={line}>{line}</li>
              ))}
              {answer.cautions.map((line) => (
                <li key={line} className={styles.caution}>
                  {line}
                </li>
              ))}
            </ul>
          </details>
        )}
        {trouble && <p className={styles.trouble}>{trouble}</p>}
      </div>
      <div className={styles.answers}>
        <Questions {...props} />
      </div>
      <Forward {...props} />
    </section>
  )
}

/** The one button that goes on: do what was advised, or take the next step. */
function Forward({
  step,
  rows,
  answer,
  bikeType,
  set,
  shown,
  busy,
  canSave,
  finished,
  moving,
  onAdd,
  onStep,
  onFinish,
  onGoOn,
}: StepPanelProps) {
  const next = stepAfter(step)
  if (onGoOn) {
    return (
      <Button type="primary" size="large" className={styles.forward} onClick={onGoOn} loading={moving}>
        <span>
          New set-up
          <b>from this</b>
        </span>
      </Button>
    )
  }
  if (finished) return null
  if (step === 'numbers') {
    return (
      <Button
        type="primary"
        size="large"
        className={styles.forward}
        onClick={onFinish}
        loading={busy}
        disabled={!canSave}
      >
        Save the numbers
      </Button>
    )
  }
  if (!answer || step === 'talk')
    return <Onward name={STEP_NAME[next]} strong={rows.length > 0} onClick={() => onStep(next)} />
  if (step === 'beside' && !set) {
    const marks = marksAfter(answer)
    const known = rows.some(({ row }) => isBodyEvidence(row))
    return (
      <Done
        skip={!known}
        marks={formatMarks(bikeType, marks)}
        onClick={() => {
          onAdd({ kind: 'set', at: marks })
          onStep('knee')
        }}
      />
    )
  }
  if (step === 'bars') {
    const marks = marksWithBars(answer, shown)
    const at = rows.findLast(({ row }) => row.at?.barHeight !== undefined)
    const stands = at !== undefined && differingAxes(bikeType, shown, marks).length === 0
    return stands ? (
      <Onward name={STEP_NAME[next]} strong onClick={() => onStep(next)} />
    ) : (
      <Done marks={formatMarks(bikeType, marks)} onClick={() => onAdd({ kind: 'set', at: marks })} />
    )
  }
  const looked = step === 'cranks' ? latestSinceSet(rows, 'plumb') !== undefined : rowsSinceSet(rows).length > 0
  const marks = marksAfter(answer)
  // Both readings in one mount: nobody climbs off before the plumb line was hung here.
  if (step === 'knee' && looked && latestSinceSet(rows, 'plumb') === undefined && !answer.next.readAgain)
    return <Onward name={STEP_NAME[next]} strong onClick={() => onStep(next)} />
  if (looked && differingAxes(bikeType, shown, marks).length > 0)
    return (
      <Done
        marks={formatMarks(bikeType, marks)}
        onClick={() => {
          onAdd({ kind: 'set', at: marks })
          onStep('knee')
        }}
      />
    )
  return <Onward name={STEP_NAME[next]} strong={looked} onClick={() => onStep(next)} />
}

function Done({ marks, onClick, skip = false }: { marks: string; onClick: () => void; skip?: boolean }) {
  return (
    <Button type={skip ? 'default' : 'primary'} size="large" className={styles.forward} onClick={onClick}>
      <span>
        {skip ? 'Skip, set to' : 'Done, set to'}
        <b>{marks}</b>
      </span>
    </Button>
  )
}

function Onward({ name, strong, onClick }: { name: string; strong: boolean; onClick: () => void }) {
  return (
    <Button size="large" type={strong ? 'primary' : 'default'} className={styles.forward} onClick={onClick}>
      <span>
        {strong ? 'Next' : 'Skip to'}
        <b>{name}</b>
      </span>
    </Button>
  )
}
