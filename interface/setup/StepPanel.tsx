'use client'
import { formatMarks } from '@/core/messages/labels'
import { isBodyEvidence } from '@/core/evidence/evidence'
import { formatPrompt } from '@/core/messages/setupPrompts'
import { Button, Segmented } from 'antd'
import type { Marks } from '@/core/conventions'
import { CHECK_TEXT, checkText } from '@/core/messages/checks'
import { formatQuestionTitle, formatWorth } from '@/core/messages/questions'
import { CheckPicture } from '../drawing/CheckPicture'
import { QUESTION_CARD } from './checksOfStep'
import { MisSet } from './MisSet'
import { isSuspect } from './misSet'
import { QUESTIONS } from './questions'
import { Numbers } from './questions/Numbers'
import {
  differingAxes,
  rowsSinceSet,
  plumbCheckedSinceSet,
  marksAfter,
  marksWithBars,
  stepAfter,
  STEP_NAME,
} from './flow'
import type { StepPanelProps } from './stepPanelProps'
import { stepPrompt } from './stepPrompt'
import styles from './stepPanel.module.css'

/** What to do next in one sentence, the answers as large buttons, and the one step forward. */
export function StepPanel(props: StepPanelProps) {
  const { step, check, checks, answer, working, trouble, finished, set, misSet } = props
  const { sentence, small } = formatPrompt(stepPrompt(props))
  const Questions = QUESTIONS[check]
  const suspect = misSet !== null && !finished && isSuspect(misSet)
  const text = checkText(check, props.school)
  const asks = !finished && (set || step === 'talk' || step === 'beside') && checks.length > 0
  const ask = answer?.ask
  const there = ask && QUESTION_CARD[ask.question]
  // In the saddle nothing is asked that is done beside the bike, and the other way round.
  const inSaddle = (s: typeof step) => s === 'knee' || s === 'cranks'
  const offersAsk =
    there && asks && (there.step === step || (inSaddle(there.step) && inSaddle(step))) && there.check !== check
  return (
    <section className={styles.dock} aria-label="What to do next" aria-busy={working}>
      {asks && (
        <div className={styles.picture}>
          <CheckPicture check={check} landmark={props.landmark} />
        </div>
      )}
      <div className={`${styles.saying} ${asks ? '' : styles.wide}`} aria-live="polite">
        <p className={`${styles.sentence} ${working ? styles.working : ''}`}>{sentence}</p>
        {small !== '' && <p className={styles.small}>{small}</p>}
        {asks && (
          <p className={styles.small}>
            {text.look} <q>{text.say}</q>
          </p>
        )}
        {answer?.starter && step === 'numbers' && <p className={styles.small}>{answer.starter.sentence}</p>}
        {suspect ? (
          <p className={styles.doubt}>{misSet.sentence}</p>
        ) : (
          answer && answer.doubts.length > 0 && <p className={styles.doubt}>{answer.doubts[0].say}</p>
        )}
        {trouble && <p className={styles.trouble}>{trouble}</p>}
      </div>
      <div className={`${styles.answers} ${asks ? '' : styles.wide}`}>
        <div className={styles.tools}>
          {asks && checks.length > 1 && (
            <Segmented
              className={styles.cards}
              value={check}
              onChange={props.onCheck}
              options={checks.map((value) => ({ value, label: CHECK_TEXT[value].name }))}
            />
          )}
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
          {misSet && !finished && step !== 'talk' && <MisSet {...props} misSet={misSet} suspect={suspect} />}
          {offersAsk && (
            <button
              type="button"
              className={styles.ask}
              title={ask.sentence}
              onClick={() => {
                props.onStep(there.step)
                props.onCheck(there.check)
              }}
            >
              <b>{formatQuestionTitle(ask.question)}</b> {formatWorth(ask)}
            </button>
          )}
        </div>
        <div className={styles.question} data-question="">
          {asks && <Questions {...props} />}
          {step === 'numbers' && <Numbers {...props} />}
        </div>
      </div>
      <Forward {...props} />
    </section>
  )
}

/** The one button that goes on: do what was advised, or take the next step. */
function Forward({
  step,
  rows,
  previous,
  answer,
  bikeType,
  school,
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
      <Button type="primary" size="large" className={styles.forward} data-forward="" onClick={onGoOn} loading={moving}>
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
        data-forward=""
        onClick={onFinish}
        loading={busy}
        disabled={!canSave}
      >
        Save the numbers
      </Button>
    )
  }
  if (step === 'knee' && answer && asBefore(previous, bikeType, shown) && rowsSinceSet(rows).length > 0) {
    if (answer.next.kind === 'stop' && !answer.next.readAgain)
      return (
        <Button
          type="primary"
          size="large"
          className={styles.forward}
          data-forward=""
          onClick={onFinish}
          loading={busy}
        >
          <span>
            All as before
            <b>Save</b>
          </span>
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
  if (step === 'bars' && answer.bars.decision === 'plumbFirst')
    return <Onward name={STEP_NAME.cranks} strong onClick={() => onStep('cranks')} />
  if (step === 'bars' && !answer.next.forReach) {
    const marks = marksWithBars(answer, shown)
    const at = rows.findLast(({ row }) => row.at?.barHeight !== undefined)
    const stands = at !== undefined && differingAxes(bikeType, shown, marks).length === 0
    return stands ? (
      <Onward name={STEP_NAME[next]} strong onClick={() => onStep(next)} />
    ) : (
      <Done marks={formatMarks(bikeType, marks)} onClick={() => onAdd({ kind: 'set', at: marks })} />
    )
  }
  const looked = step === 'cranks' ? plumbCheckedSinceSet(rows) : rowsSinceSet(rows).length > 0
  const marks = marksAfter(answer)
  const plumbDone = school.foreAft === 'unused' || plumbCheckedSinceSet(rows)
  // Both readings in one mount: nobody climbs off before the plumb line was hung here.
  if (step === 'knee' && looked && !plumbDone && !answer.next.readAgain)
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

/** The bike stands where the rider's saved numbers say. */
const asBefore = (previous: StepPanelProps['previous'], bikeType: StepPanelProps['bikeType'], shown: Marks): boolean =>
  previous !== null && differingAxes(bikeType, previous.marks, shown).length === 0

function Done({ marks, onClick, skip = false }: { marks: string; onClick: () => void; skip?: boolean }) {
  return (
    <Button
      type={skip ? 'default' : 'primary'}
      size="large"
      className={styles.forward}
      data-forward=""
      onClick={onClick}
    >
      <span>
        {skip ? 'Skip, set to' : 'Done, set to'}
        <b>{marks}</b>
      </span>
    </Button>
  )
}

function Onward({ name, strong, onClick }: { name: string; strong: boolean; onClick: () => void }) {
  return (
    <Button
      size="large"
      type={strong ? 'primary' : 'default'}
      className={styles.forward}
      data-forward=""
      onClick={onClick}
    >
      <span>
        {strong ? 'Next' : 'Skip to'}
        <b>{name}</b>
      </span>
    </Button>
  )
}
