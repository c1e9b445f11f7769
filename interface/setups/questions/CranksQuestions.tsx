import { Segmented } from 'antd'
import { useState } from 'react'
import { PATELLA_MIDDLE_BEHIND_FRONT_MM } from '@/core/base/measurementNoise'
import { PLUMB_WINDOW_MM } from '@/core/base/school/school'
import { ChoiceGroup } from '../steps/ChoiceGroup'
import { latestSinceSet } from '../steps/flow'
import styles from '../steps/questions.module.css'
import { SliderInput } from '../steps/SliderInput'
import type { StepPanelProps } from '../steps/stepPanelProps'

/** The string from the knee, from which part of the kneecap, and who read it. */
export function PlumbQuestions({
  rows,
  shown: at,
  answer,
  context: { school },
  actions: { onReplace },
}: StepPanelProps) {
  const plumb = latestSinceSet(rows, 'plumb')
  const reading = plumb?.row.kind === 'plumb' ? plumb.row : undefined
  const [from, setFrom] = useState<'front' | 'middle'>(reading?.from ?? school.plumbFrom)
  const [readBy, setReadBy] = useState<'instructor' | 'rider'>(reading?.readBy ?? 'instructor')
  return (
    <>
      <div className={styles.meanings}>
        <Segmented
          aria-label="From"
          value={from}
          onChange={setFrom}
          options={[
            { value: 'front', label: 'Kneecap’s front' },
            { value: 'middle', label: 'Its middle' },
          ]}
        />
        <Segmented
          aria-label="Read by"
          value={readBy}
          onChange={setReadBy}
          options={[
            { value: 'instructor', label: 'From the side' },
            { value: 'rider', label: 'Rider looks' },
          ]}
        />
      </div>
      <SliderInput
        key={plumb?.id ?? 'unread'}
        title={plumbTitle(from, readBy)}
        unit=" mm"
        from={-100}
        to={100}
        step={2}
        window={PLUMB_WINDOW_MM[school.foreAft]}
        start={Math.round(Math.min(100, Math.max(-100, answer?.belief.plumbOffsetMm.mean ?? 0)) / 2) * 2}
        given={reading?.mm}
        name={(v) => (v === 0 ? 'over the axle' : `${Math.abs(v)} millimetres ${v > 0 ? 'ahead' : 'behind'}`)}
        onRead={(mm) =>
          onReplace(plumb, { kind: 'plumb', mm, from, at, ...(readBy === 'rider' && { readBy: 'rider' as const }) })
        }
      />
    </>
  )
}

/** What the reading is of, and what another meaning of it would amount to. */
const plumbTitle = (from: 'front' | 'middle', readBy: 'instructor' | 'rider'): string =>
  readBy === 'rider'
    ? 'String to the pedal axle as the rider sees it, mm; that strays some 20'
    : from === 'middle'
      ? `String from the kneecap’s middle to the axle, mm; from its front ${PATELLA_MIDDLE_BEHIND_FRONT_MM} more`
      : `String from the kneecap’s front to the axle, mm; from its middle ${PATELLA_MIDDLE_BEHIND_FRONT_MM} less`

/** Where the knee hangs over the foot, by a look. */
export function PlumbByEyeQuestions({ rows, shown: at, actions: { onReplace } }: StepPanelProps) {
  const row = latestSinceSet(rows, 'plumbByEye')
  return (
    <ChoiceGroup
      title="The front of the knee hangs"
      given={row?.row.kind === 'plumbByEye' ? row.row.seen : undefined}
      choices={[
        { value: 'behindAnkle', name: 'Behind the ankle' },
        { value: 'midFoot', name: 'Over mid-foot' },
        { value: 'overAxle', name: 'Over the axle' },
        { value: 'aheadOfAxle', name: 'Ahead of it' },
        { value: 'pastToes', name: 'Past the toes' },
      ]}
      onChoose={(seen) => onReplace(row, { kind: 'plumbByEye', seen, at })}
    />
  )
}
