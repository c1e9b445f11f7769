import { Switch } from 'antd'
import '@/interface/kit/antd/switch.generated.css'
import { useState } from 'react'
import { hasHealthAnswer } from '@/core/riders/evidence/healthAnswers'
import type { EvidenceOf } from '@/core/riders/evidence/registry'
import { formatAnsweredBefore } from '@/core/messages/riders/rider'
import { AskConsent } from '../../comfort/limits/AskConsent'
import { ChoiceGroup } from '../steps/ChoiceGroup'
import { latestRow } from '../steps/flow'
import styles from '../steps/questions.module.css'
import { SOLES } from '../steps/soles'
import type { StepPanelProps } from '../steps/stepPanelProps'

/** What the rider answers: experience, shoes, pedal side, back and pregnancy. */
export function RiderQuestions({
  rows,
  context: { answeredBefore, consent },
  actions: { onAdd, onReplace },
}: StepPanelProps) {
  /** An answer about health that waits for the rider's consent. */
  const [waiting, setWaiting] = useState<EvidenceOf<'rider'> | null>(null)
  const row = latestRow(rows, 'rider')
  const answers = row?.row.kind === 'rider' ? row.row : undefined
  // A pregnancy reported before stays until somebody switches it off here.
  const rider: EvidenceOf<'rider'> = answers ?? {
    kind: 'rider',
    experience: 'new',
    ...(answeredBefore?.row.pregnant && { pregnant: true }),
  }
  const write = (next: EvidenceOf<'rider'>) => (row ? onReplace(row, next) : onAdd(next))
  const agrees = consent.agrees || rows.some((one) => hasHealthAnswer(one.row))
  const answer = (next: EvidenceOf<'rider'>) => (hasHealthAnswer(next) && !agrees ? setWaiting(next) : write(next))
  const update = (change: Partial<EvidenceOf<'rider'>>) => answer({ ...rider, ...change })
  const sole = SOLES.find(({ value }) => Number(value) === answers?.soleMm)
  // In place of the questions: beside them there is no room for it.
  if (waiting)
    return (
      <AskConsent
        name={consent.name}
        wording={consent.wording}
        onAgree={() => {
          write(waiting)
          setWaiting(null)
        }}
        onDecline={() => setWaiting(null)}
      />
    )
  return (
    <>
      {!row && answeredBefore && (
        <ChoiceGroup
          title={formatAnsweredBefore(answeredBefore)}
          choices={[{ value: 'same', name: 'Still so' }]}
          onChoose={() => answer(answeredBefore.row)}
        />
      )}
      <ChoiceGroup
        title="Indoor riding"
        given={answers?.experience}
        choices={[
          { value: 'new', name: 'New' },
          { value: 'regular', name: 'Regular' },
          { value: 'experienced', name: 'Experienced' },
        ]}
        onChoose={(experience) => update({ experience })}
      />
      <ChoiceGroup
        title="Pedal side"
        given={answers?.pedal}
        choices={[
          { value: 'cage', name: 'Cage' },
          { value: 'cleat', name: 'Cleat' },
        ]}
        onChoose={(pedal) => update({ pedal })}
      />
      <ChoiceGroup title="Sole" given={sole?.value} choices={SOLES} onChoose={(mm) => update({ soleMm: Number(mm) })} />
      <div className={styles.flags}>
        <label>
          <Switch checked={answers?.backSore ?? false} onChange={(backSore) => update({ backSore })} /> Sore back
        </label>
        <label>
          <Switch checked={rider.pregnant ?? false} onChange={(pregnant) => update({ pregnant })} /> Pregnant
        </label>
      </div>
    </>
  )
}

/** How the rider is built, for where the saddle's slide starts. */
export function BuildQuestions({ rows, actions: { onReplace } }: StepPanelProps) {
  const row = latestRow(rows, 'build')
  const answers = row?.row.kind === 'build' ? row.row : undefined
  const build: EvidenceOf<'build'> = answers ?? { kind: 'build', torso: 'even' }
  const update = (change: Partial<EvidenceOf<'build'>>) => onReplace(row, { ...build, ...change })
  return (
    <>
      <ChoiceGroup
        title="Torso against legs"
        given={answers?.torso}
        choices={[
          { value: 'long', name: 'Long' },
          { value: 'even', name: 'Even' },
          { value: 'short', name: 'Short' },
        ]}
        onChoose={(torso) => update({ torso })}
      />
      <div className={styles.flags}>
        <label>
          <Switch checked={answers?.heavyUpperBody ?? false} onChange={(on) => update({ heavyUpperBody: on })} /> Heavy
          upper body
        </label>
        <label>
          <Switch checked={answers?.tightHips ?? false} onChange={(on) => update({ tightHips: on })} /> Tight hips
        </label>
      </div>
    </>
  )
}
