'use client'
import { formatPrompt } from '@/core/messages/setups/setupPrompts'
import { Segmented } from 'antd'
import { CHECK_TEXT, checkText } from '@/core/messages/setups/checks'
import { formatQuestionTitle, formatWorth } from '@/core/messages/setups/questions'
import { CheckPicture } from '../../kit/drawing/CheckPicture'
import { QUESTION_CARD } from '../steps/checksOfStep'
import { MisSet } from '../misSet/MisSet'
import { isSuspect } from '../misSet/misSet'
import { Forward } from './Forward'
import { QUESTIONS } from '../questions'
import { Numbers } from '../questions/Numbers'
import { TalkLimits } from '../questions/TalkLimits'
import type { StepPanelProps } from '../steps/stepPanelProps'
import { stepPrompt } from './stepPrompt'
import styles from '../steps/stepPanel.module.css'

/** What to do next in one sentence, the answers as large buttons, and the one step forward. */
export function StepPanel(props: StepPanelProps) {
  const {
    step,
    check,
    checks,
    answer,
    working,
    trouble,
    set,
    misSet,
    saving: { finished },
  } = props
  const { sentence, small } = formatPrompt(stepPrompt(props))
  const Questions = QUESTIONS[check]
  const suspect = misSet !== null && !finished && isSuspect(misSet)
  const text = checkText(check, props.context.school)
  const hasQuestions = !finished && (set || step === 'talk' || step === 'beside') && checks.length > 0
  const proposed = answer?.ask
  const there = proposed && QUESTION_CARD[proposed.question]
  // In the saddle there are no questions for beside the bike, and the other way round.
  const inSaddle = (s: typeof step) => s === 'knee' || s === 'cranks'
  const offersQuestion =
    there && hasQuestions && (there.step === step || (inSaddle(there.step) && inSaddle(step))) && there.check !== check
  return (
    <section className={styles.dock} aria-label="What to do next" aria-busy={working}>
      {hasQuestions && (
        <div className={styles.picture}>
          <CheckPicture check={check} landmark={props.landmark} />
        </div>
      )}
      <div className={`${styles.saying} ${hasQuestions ? '' : styles.wide}`} aria-live="polite">
        <p className={`${styles.sentence} ${working ? styles.working : ''}`}>{sentence}</p>
        {small !== '' && <p className={styles.small}>{small}</p>}
        {hasQuestions && (
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
      <div className={`${styles.answers} ${hasQuestions ? '' : styles.wide}`}>
        <div className={styles.tools}>
          {hasQuestions && checks.length > 1 && (
            <Segmented
              className={styles.cards}
              value={check}
              onChange={props.actions.onCheck}
              options={checks.map((value) => ({ value, label: CHECK_TEXT[value].name }))}
            />
          )}
          {hasQuestions && step === 'talk' && <TalkLimits {...props.context} />}
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
          {offersQuestion && (
            <button
              type="button"
              className={styles.ask}
              title={proposed.sentence}
              onClick={() => {
                props.actions.onStep(there.step)
                props.actions.onCheck(there.check)
              }}
            >
              <b>{formatQuestionTitle(proposed.question)}</b> {formatWorth(proposed)}
            </button>
          )}
        </div>
        <div className={styles.question} data-question="">
          {hasQuestions && <Questions {...props} />}
          {step === 'numbers' && <Numbers {...props} />}
        </div>
      </div>
      <Forward {...props} />
    </section>
  )
}
