'use client'
import { useState, type ReactNode } from 'react'
import type { Marks } from '@/core/base/conventions'
import {
  ELBOWS,
  EXPERIENCE,
  FEET,
  FIND_LANDMARK,
  FOREARM,
  HEEL,
  LOOK_DOWN,
  SETTING,
  STAND_BESIDE,
  WHICH_MARK,
} from '@/core/messages/setups/alone'
import type { Evidence } from '@/core/riders/evidence/registry'
import type { AloneStep } from '@/core/setups/alone/alone'
import { CheckPicture } from '../../kit/drawing/CheckPicture'
import { Scale } from '../../kit/scale/Scale'
import { ChoiceGroup } from '../steps/ChoiceGroup'
import type { AloneScale } from './aloneScale'
import { AloneNumbers } from './AloneNumbers'
import styles from './alone.module.css'

type Props = Readonly<{
  step: Exclude<AloneStep, { kind: 'end' }>
  rows: readonly Evidence[]
  scales: readonly AloneScale[]
  /** The step of the last tap is being computed: nothing is tapped twice. */
  isWaiting: boolean
  onRow: (row: Evidence) => void
  picture: ReactNode
  gettingOn: ReactNode
}>

/** One step: a picture, one sentence, and the answers. */
export function AloneStepCard({ step, rows, scales, isWaiting, onRow, picture, gettingOn }: Props) {
  const at: Marks = rows.findLast(({ kind }) => kind === 'set')?.at ?? {}
  const own = { readBy: 'rider', at } as const
  const add = (row: Evidence) => {
    if (!isWaiting) onRow(row)
  }
  switch (step.kind) {
    case 'talk':
      return <Talk add={add} />
    case 'landmark': {
      const scale = scales.find(({ axis }) => axis === 'seatHeight')!
      return (
        <>
          <Picture check="landmark" landmark={step.landmark} />
          <h2>{STAND_BESIDE}</h2>
          <p>{FIND_LANDMARK[step.landmark]}</p>
          <p className={styles.ask}>{WHICH_MARK}</p>
          <div className={styles.scale}>
            <Scale
              title={scale.title}
              way="upright"
              marks={scale.marks.map((mark) => ({ ...mark, set: false, isTarget: false }))}
              remark=""
              drawnAs={scale.drawnAs}
              asking
              onTap={(seatHeight) =>
                add({ kind: 'landmarkAtMark', landmark: step.landmark, at: { seatHeight }, readBy: 'rider' })
              }
            />
          </div>
        </>
      )
    }
    case 'set': {
      const { title, text, done } = SETTING[step.why]
      const moved = step.why === 'better' ? step.moves.map(({ axis }) => axis) : null
      return (
        <>
          <h2>{title}</h2>
          <AloneNumbers
            scales={scales.filter(({ axis }) => !moved || moved.includes(axis))}
            marks={step.marks}
            from={step.why === 'better' ? at : undefined}
          />
          <p>{text}</p>
          <button
            type="button"
            className={styles.go}
            disabled={isWaiting}
            onClick={() => add({ kind: 'set', at: step.marks })}
          >
            {done}
          </button>
          {picture}
          {gettingOn && (
            <details className={styles.more}>
              <summary>How to get on and off</summary>
              {gettingOn}
            </details>
          )}
        </>
      )
    }
    case 'forearm':
      return (
        <Check
          check="forearmGauge"
          {...FOREARM}
          add={(mm) => add({ kind: 'forearmGauge', gapMm: Number(mm), ...own })}
        />
      )
    case 'heel':
      return <Check check="heelCheck" {...HEEL} add={(seen) => add({ kind: 'heelCheck', seen, ...own })} />
    case 'lookDown':
      return <Check check="plumbByEye" {...LOOK_DOWN} add={(seen) => add({ kind: 'plumbByEye', seen, ...own })} />
    case 'elbows':
      return <Check check="elbows" {...ELBOWS} add={(seen) => add({ kind: 'elbows', seen, ...own })} />
  }
}

type PictureProps = Parameters<typeof CheckPicture>[0]
const Picture = ({ check, landmark = 'hipCrest' }: Pick<PictureProps, 'check'> & Partial<PictureProps>) => (
  <div className={styles.picture}>
    <CheckPicture check={check} landmark={landmark} />
  </div>
)

function Check<V extends string>({
  check,
  title,
  choices,
  add,
}: Readonly<{
  check: PictureProps['check']
  title: string
  choices: readonly Readonly<{ value: V; name: string; hint?: string }>[]
  add: (value: V) => void
}>) {
  return (
    <>
      <Picture check={check} />
      <h2>{title}</h2>
      <div className={styles.choices} role="group" aria-label={title}>
        {choices.map(({ value, name }) => (
          <button key={value} type="button" className={styles.choice} onClick={() => add(value)}>
            {name}
          </button>
        ))}
      </div>
    </>
  )
}

/** Two answers on one card; the second one goes on. */
function Talk({ add }: Readonly<{ add: (row: Evidence) => void }>) {
  const [experience, setExperience] = useState<(typeof EXPERIENCE.choices)[number]['value']>()
  const [pedal, setPedal] = useState<(typeof FEET.choices)[number]['value']>()
  const answer = (given: typeof experience, feet: typeof pedal) => {
    setExperience(given)
    setPedal(feet)
    if (given && feet) add({ kind: 'rider', experience: given, pedal: feet })
  }
  return (
    <>
      <h2>Two things first</h2>
      <ChoiceGroup {...EXPERIENCE} given={experience} onChoose={(given) => answer(given, pedal)} />
      <ChoiceGroup {...FEET} given={pedal} onChoose={(feet) => answer(experience, feet)} />
    </>
  )
}
