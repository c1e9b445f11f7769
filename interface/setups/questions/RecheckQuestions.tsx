import { formatMarks } from '@/core/messages/words/labels'
import { ChoiceGroup } from '../steps/ChoiceGroup'
import { latestRow } from '../steps/flow'
import type { StepPanelProps } from '../steps/stepPanelProps'

/**
 * A returning rider in a moment: where all is as it was, the saved marks are set and only a glance is left; where
 * something changed, the talk goes on.
 */
export function RecheckQuestions({
  rows,
  context: { previous, bikeType },
  actions: { onAdd, onStep, onCheck },
}: StepPanelProps) {
  if (!previous) return null
  const marks = formatMarks(bikeType, previous.marks)
  return (
    <ChoiceGroup
      title={`Saved ${previous.when}: ${marks}`}
      given={rows.some(({ row }) => row.kind === 'set') ? 'same' : undefined}
      choices={[
        { value: 'same', name: 'All as before', hint: `the bike is set to ${marks}` },
        { value: 'changed', name: 'Something changed', hint: 'shoes, pedal side, a complaint, or the marks' },
      ]}
      onChoose={(what) => {
        if (what === 'changed') return onCheck('rider')
        if (previous.rider && !latestRow(rows, 'rider')) onAdd(previous.rider)
        onAdd({ kind: 'set', at: previous.marks, ...(previous.meant && { meant: previous.meant }) })
        onStep('knee')
      }}
    />
  )
}
