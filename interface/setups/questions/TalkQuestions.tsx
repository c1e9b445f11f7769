import { Switch } from 'antd'
import '@/interface/kit/antd/switch.generated.css'
import type { EvidenceOf } from '@/core/riders/evidence/registry'
import { formatAnsweredBefore } from '@/core/messages/riders/rider'
import { ChoiceGroup } from '../steps/ChoiceGroup'
import { latestRow } from '../steps/flow'
import styles from '../steps/questions.module.css'
import { SOLES } from '../steps/soles'
import type { StepPanelProps } from '../steps/stepPanelProps'

/** What the rider answers: experience, shoes, pedal side, back and pregnancy. */
export function RiderQuestions({ rows, context: { answeredBefore }, actions: { onAdd, onReplace } }: StepPanelProps) {
  const row = latestRow(rows, 'rider')
  const known = row?.row.kind === 'rider' ? row.row : undefined
  // A pregnancy reported before stays until somebody switches it off here.
  const rider: EvidenceOf<'rider'> = known ?? {
    kind: 'rider',
    experience: 'new',
    ...(answeredBefore?.row.pregnant && { pregnant: true }),
  }
  const say = (change: Partial<EvidenceOf<'rider'>>) =>
    row ? onReplace(row, { ...rider, ...change }) : onAdd({ ...rider, ...change })
  const sole = SOLES.find(({ value }) => Number(value) === known?.soleMm)
  return (
    <>
      {!row && answeredBefore && (
        <ChoiceGroup
          title={formatAnsweredBefore(answeredBefore)}
          choices={[{ value: 'same', name: 'Still so' }]}
          onChoose={() => onAdd(answeredBefore.row)}
        />
      )}
      <ChoiceGroup
        title="Indoor riding"
        given={known?.experience}
        choices={[
          { value: 'new', name: 'New' },
          { value: 'regular', name: 'Regular' },
          { value: 'experienced', name: 'Experienced' },
        ]}
        onChoose={(experience) => say({ experience })}
      />
      <ChoiceGroup
        title="Pedal side"
        given={known?.pedal}
        choices={[
          { value: 'cage', name: 'Cage' },
          { value: 'cleat', name: 'Cleat' },
        ]}
        onChoose={(pedal) => say({ pedal })}
      />
      <ChoiceGroup title="Sole" given={sole?.value} choices={SOLES} onChoose={(mm) => say({ soleMm: Number(mm) })} />
      <div className={styles.flags}>
        <label>
          <Switch checked={known?.backSore ?? false} onChange={(backSore) => say({ backSore })} /> Sore back
        </label>
        <label>
          <Switch checked={rider.pregnant ?? false} onChange={(pregnant) => say({ pregnant })} /> Pregnant
        </label>
      </div>
    </>
  )
}

/** How the rider is built, for where the saddle's slide starts. */
export function BuildQuestions({ rows, actions: { onReplace } }: StepPanelProps) {
  const row = latestRow(rows, 'build')
  const known = row?.row.kind === 'build' ? row.row : undefined
  const build: EvidenceOf<'build'> = known ?? { kind: 'build', torso: 'even' }
  const say = (change: Partial<EvidenceOf<'build'>>) => onReplace(row, { ...build, ...change })
  return (
    <>
      <ChoiceGroup
        title="Torso against legs"
        given={known?.torso}
        choices={[
          { value: 'long', name: 'Long' },
          { value: 'even', name: 'Even' },
          { value: 'short', name: 'Short' },
        ]}
        onChoose={(torso) => say({ torso })}
      />
      <div className={styles.flags}>
        <label>
          <Switch checked={known?.heavyUpperBody ?? false} onChange={(on) => say({ heavyUpperBody: on })} /> Heavy upper
          body
        </label>
        <label>
          <Switch checked={known?.tightHips ?? false} onChange={(on) => say({ tightHips: on })} /> Tight hips
        </label>
      </div>
    </>
  )
}
