'use client'
import { Segmented, Switch } from 'antd'
import { useState } from 'react'
import { latest } from '@/core/evidence/evidence'
import type { EvidenceOf } from '@/core/evidence/registry'
import { axesOf } from '@/core/bike/bike'
import { PLUMB_WINDOW_MM } from '@/core/school/school'
import { formatLabel } from '@/core/messages/labels'
import { AXIS_TITLE } from '@/core/messages/phrases'
import { ChoiceGroup } from './ChoiceGroup'
import { SliderInput } from './SliderInput'
import type { StepPanelProps } from './stepPanelProps'
import { latestRow, latestSinceSet } from './flow'
import { TapeFields } from './TapeFields'
import styles from './questions.module.css'

export function TalkQuestions({ rows, onAdd, onReplace }: StepPanelProps) {
  const row = latestRow(rows, 'rider')
  const known = latest(
    rows.map((r) => r.row),
    'rider',
  )
  const rider: EvidenceOf<'rider'> = known ?? { kind: 'rider', experience: 'new' }
  const say = (change: Partial<EvidenceOf<'rider'>>) =>
    row ? onReplace(row, { ...rider, ...change }) : onAdd({ ...rider, ...change })
  return (
    <>
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
      <div className={styles.flags}>
        <label>
          <Switch checked={known?.backSore ?? false} onChange={(backSore) => say({ backSore })} /> Sore back
        </label>
        <label>
          <Switch checked={known?.pregnant ?? false} onChange={(pregnant) => say({ pregnant })} /> Pregnant
        </label>
      </div>
    </>
  )
}

const LANDMARK_CHOICES = [
  { value: 'hipCrest', name: 'Hip crest' },
  { value: 'frontHipBone', name: 'Front hip bone' },
  { value: 'between', name: 'Between' },
] as const

export function BesideQuestions(props: StepPanelProps) {
  const { landmark, landmarks, onLandmark, rows } = props
  const [how, setHow] = useState<'landmark' | 'tape'>(
    rows.some(({ row }) => row.kind === 'inseam' || row.kind === 'stature') ? 'tape' : 'landmark',
  )
  return (
    <div className={styles.beside}>
      <Ways how={how} ways={{ landmark: 'Landmark', tape: 'Tape' }} onHow={setHow} />
      {how === 'landmark' ? (
        <ChoiceGroup
          title="Saddle top level with"
          given={landmark}
          choices={LANDMARK_CHOICES.filter(({ value }) => landmarks.includes(value))}
          onChoose={onLandmark}
        />
      ) : (
        <TapeFields {...props} />
      )}
    </div>
  )
}

/** Ways to answer one question: by what is at hand. */
function Ways<How extends string>({
  how,
  ways,
  onHow,
}: {
  how: How
  ways: Readonly<Record<How, string>>
  onHow: (how: How) => void
}) {
  const options = Object.entries<string>(ways).map(([value, label]) => ({ value: value as How, label }))
  return <Segmented value={how} onChange={onHow} options={options} />
}

export function KneeQuestions({ rows, set, school, answer, onReplace, onAdd, shown }: StepPanelProps) {
  const [how, setHow] = useState<'eye' | 'goniometer'>(
    rows.some(({ row }) => row.kind === 'kneeAngle') ? 'goniometer' : 'eye',
  )
  const eye = latestSinceSet(rows, 'kneeByEye')
  const heel = latestSinceSet(rows, 'heelCheck')
  const angle = latestSinceSet(rows, 'kneeAngle')
  if (!set) return null
  const at = shown
  return (
    <div className={styles.knee}>
      <Ways how={how} ways={{ eye: 'By eye', goniometer: 'Goniometer' }} onHow={setHow} />
      {how === 'goniometer' ? (
        <SliderInput
          key={angle?.id ?? (answer ? 'believed' : 'unknown')}
          title="Knee bend at the bottom, degrees"
          unit="°"
          from={0}
          to={70}
          step={1}
          window={school.kneeWindowDeg}
          start={Math.round(Math.min(70, Math.max(0, answer?.belief.kneeFlexionDeg.mean ?? 30)))}
          given={angle?.row.kind === 'kneeAngle' ? angle.row.deg : undefined}
          name={(v) => `${v} degrees`}
          onRead={(deg) => onReplace(angle, { kind: 'kneeAngle', deg, by: 'goniometer', at })}
        />
      ) : (
        <>
          <ChoiceGroup
            title="Ball of the foot on the pedal"
            given={eye?.row.kind === 'kneeByEye' ? eye.row.seen : undefined}
            choices={[
              { value: 'locked', name: 'Locked' },
              { value: 'slightBend', name: 'Slight bend' },
              { value: 'deepBend', name: 'Deep bend' },
            ]}
            onChoose={(seen) => onReplace(eye, { kind: 'kneeByEye', seen, at })}
          />
          {school.heelCheck !== 'unused' && (
            <ChoiceGroup
              title="Heel on the pedal"
              given={heel?.row.kind === 'heelCheck' ? heel.row.seen : undefined}
              choices={[
                { value: 'cannotReach', name: 'Lifts off' },
                { value: 'justStraight', name: 'Just straight' },
                { value: 'stillBent', name: 'Still bent' },
              ]}
              onChoose={(seen) =>
                heel ? onReplace(heel, { kind: 'heelCheck', seen, at }) : onAdd({ kind: 'heelCheck', seen, at })
              }
            />
          )}
        </>
      )}
    </div>
  )
}

export function CranksQuestions({ rows, school, shown, set, answer, onReplace }: StepPanelProps) {
  const plumb = latestSinceSet(rows, 'plumb')
  if (!set) return null
  return (
    <SliderInput
      key={plumb?.id ?? (answer ? 'believed' : 'unknown')}
      title="String from the knee to the pedal axle, mm"
      unit=" mm"
      from={-100}
      to={100}
      step={2}
      window={PLUMB_WINDOW_MM[school.foreAft]}
      start={Math.round(Math.min(100, Math.max(-100, answer?.belief.plumbOffsetMm.mean ?? 0)) / 2) * 2}
      given={plumb?.row.kind === 'plumb' ? plumb.row.mm : undefined}
      name={(v) => (v === 0 ? 'over the axle' : `${Math.abs(v)} millimetres ${v > 0 ? 'ahead' : 'behind'}`)}
      onRead={(mm) => onReplace(plumb, { kind: 'plumb', mm, from: 'front', at: shown })}
    />
  )
}

const BAR_LOOKS = [
  ['Elbows', 'soft, not locked'],
  ['Shoulders', 'low, not shrugged'],
  ['Wrists', 'straight'],
  ['Back', 'long, from the hips'],
  ['Standing', 'knees clear the bars'],
] as const

/** What to look for; the bars go by rule and eye, and the scales above take what was chosen. */
export function BarsQuestions() {
  return (
    <ul className={styles.looks}>
      {BAR_LOOKS.map(([part, good]) => (
        <li key={part}>
          <b>{part}</b>
          <span>{good}</span>
        </li>
      ))}
    </ul>
  )
}

export function Numbers({ bikeType, shown }: StepPanelProps) {
  return (
    <dl className={styles.numbers}>
      {axesOf(bikeType).map((axis) => (
        <div key={axis}>
          <dt>{AXIS_TITLE[axis]}</dt>
          <dd>{shown[axis] === undefined ? '–' : formatLabel(bikeType, axis, shown[axis])}</dd>
        </div>
      ))}
    </dl>
  )
}
