import { Button } from 'antd'
import type { Marks } from '@/core/base/conventions'
import { formatMarks } from '@/core/messages/words/labels'
import { isBodyEvidence } from '@/core/riders/evidence/evidence'
import {
  differingAxes,
  marksAfter,
  marksWithBars,
  plumbCheckedSinceSet,
  rowsSinceSet,
  stepAfter,
  STEP_NAME,
} from '../steps/flow'
import styles from '../steps/stepPanel.module.css'
import type { StepPanelProps } from '../steps/stepPanelProps'

/** The one button that goes on: do what was advised, or take the next step. */
export function Forward({
  step,
  rows,
  answer,
  set,
  shown,
  context: { previous, bikeType, school },
  saving: { busy, canSave, finished, moving },
  actions: { onAdd, onStep, onFinish, onGoOn },
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
    const hasBodyRow = rows.some(({ row }) => isBodyEvidence(row))
    return (
      <Done
        skip={!hasBodyRow}
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
    const isSet = at !== undefined && differingAxes(bikeType, shown, marks).length === 0
    return isSet ? (
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

/** Whether the bike is set to the rider's saved numbers. */
const asBefore = (
  previous: StepPanelProps['context']['previous'],
  bikeType: StepPanelProps['context']['bikeType'],
  shown: Marks,
): boolean => previous !== null && differingAxes(bikeType, previous.marks, shown).length === 0

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
