import { Button } from 'antd'
import { formatMarks } from '@/core/messages/words/labels'
import { FOREARM_GAP_WINDOW_MM, TRUNK_WINDOW_DEG } from '@/core/base/school/school'
import { ChoiceGroup } from '../steps/ChoiceGroup'
import { latestRow, latestSinceSet } from '../steps/flow'
import styles from '../steps/questions.module.css'
import { SliderInput } from '../steps/SliderInput'
import type { StepPanelProps } from '../steps/stepPanelProps'

const POSTURES = [
  { value: 'upright', name: 'Upright' },
  { value: 'level', name: 'Level' },
  { value: 'low', name: 'Low' },
] as const

/** What the rider wants of the bars, and in which hand position; where they choose, low and high are tried first. */
export function WishQuestions({
  rows,
  answer,
  shown,
  context: { bikeType },
  actions: { onAdd, onReplace },
}: StepPanelProps) {
  const row = latestRow(rows, 'wish')
  const wish = row?.row.kind === 'wish' ? row.row : undefined
  const grips = bikeType.grips ?? []
  const choices = answer?.bars.choices
  return (
    <>
      {choices && (
        <div className={styles.choices}>
          {(['low', 'high'] as const).map((which) => {
            const { height, slide } = choices[which]
            const marks = { barHeight: height.label, ...(slide && { barSlide: slide.label }) }
            return (
              <Button key={which} size="large" onClick={() => onAdd({ kind: 'set', at: { ...shown, ...marks } })}>
                Show {which}: {formatMarks(bikeType, marks)}
              </Button>
            )
          })}
        </div>
      )}
      <ChoiceGroup
        title="The rider wants to sit"
        given={wish?.posture}
        choices={POSTURES}
        onChoose={(posture) => onReplace(row, { ...wish, kind: 'wish', posture })}
      />
      {grips.length > 0 && (
        <ChoiceGroup
          title="Hands mostly"
          given={wish?.grip ?? ''}
          choices={[{ value: '', name: 'Near' }, ...grips.map(({ name }) => ({ value: name, name }))]}
          onChoose={(grip) =>
            onReplace(row, { kind: 'wish', posture: wish?.posture ?? 'level', ...(grip !== '' && { grip }) })
          }
        />
      )}
    </>
  )
}

export function ElbowsQuestions({ rows, shown: at, actions: { onReplace } }: StepPanelProps) {
  const row = latestSinceSet(rows, 'elbows')
  return (
    <ChoiceGroup
      title="Elbows in the riding position"
      given={row?.row.kind === 'elbows' ? row.row.seen : undefined}
      choices={[
        { value: 'locked', name: 'Locked' },
        { value: 'soft', name: 'Soft' },
        { value: 'cramped', name: 'Cramped' },
      ]}
      onChoose={(seen) => onReplace(row, { kind: 'elbows', seen, at })}
    />
  )
}

export function ReachFeelQuestions({ rows, shown: at, actions: { onReplace } }: StepPanelProps) {
  const row = latestSinceSet(rows, 'reachFeel')
  return (
    <ChoiceGroup
      title="The reach feels"
      given={row?.row.kind === 'reachFeel' ? row.row.seen : undefined}
      choices={[
        { value: 'stretched', name: 'Stretched' },
        { value: 'right', name: 'Right' },
        { value: 'cramped', name: 'Cramped' },
      ]}
      onChoose={(seen) => onReplace(row, { kind: 'reachFeel', seen, at })}
    />
  )
}

export function ClearanceQuestions({ rows, shown: at, actions: { onReplace } }: StepPanelProps) {
  const row = latestSinceSet(rows, 'clearance')
  return (
    <ChoiceGroup
      title="Standing, the knees"
      given={row?.row.kind === 'clearance' ? row.row.seen : undefined}
      choices={[
        { value: 'clear', name: 'Clear the bars' },
        { value: 'touches', name: 'Touch them' },
      ]}
      onChoose={(seen) => onReplace(row, { kind: 'clearance', seen, at })}
    />
  )
}

export function TrunkAngleQuestions({ rows, shown: at, answer, actions: { onReplace } }: StepPanelProps) {
  const row = latestSinceSet(rows, 'trunkAngle')
  const range = answer?.bars.reach.by === 'trunk' ? answer.bars.reach.window : TRUNK_WINDOW_DEG.level
  return (
    <SliderInput
      key={row?.id ?? 'unread'}
      title="Trunk above level, degrees"
      unit="°"
      from={20}
      to={90}
      step={1}
      window={range}
      start={Math.round(Math.min(90, Math.max(20, answer?.bars.trunkDeg.mean ?? 60)))}
      given={row?.row.kind === 'trunkAngle' ? row.row.deg : undefined}
      name={(v) => `${v} degrees`}
      onRead={(deg) => onReplace(row, { kind: 'trunkAngle', deg, at })}
    />
  )
}

export function ForearmQuestions({ rows, shown: at, answer, actions: { onReplace } }: StepPanelProps) {
  const row = latestSinceSet(rows, 'forearmGauge')
  return (
    <SliderInput
      key={row?.id ?? 'unread'}
      title="Fingertips short of the bar, mm; minus is over it"
      unit=" mm"
      from={-100}
      to={150}
      step={5}
      window={FOREARM_GAP_WINDOW_MM}
      start={Math.round(Math.min(150, Math.max(-100, answer?.bars.forearmGapMm ?? 0)) / 5) * 5}
      given={row?.row.kind === 'forearmGauge' ? row.row.gapMm : undefined}
      name={(v) => (v >= 0 ? `${v} millimetres short` : `${-v} millimetres over`)}
      onRead={(gapMm) => onReplace(row, { kind: 'forearmGauge', gapMm, at })}
    />
  )
}
