'use client'
import type { ReactNode } from 'react'
import type { Marks } from '@/core/base/conventions'
import {
  ELBOWS,
  FIND_LANDMARK,
  FOREARM,
  HEEL,
  HEEL_LOW,
  KNEE,
  LOOK_DOWN,
  SETTING,
  STAND_BESIDE,
  WHICH_MARK,
} from '@/core/messages/setups/alone'
import type { Evidence } from '@/core/riders/evidence/registry'
import type { AloneStep } from '@/core/setups/alone/alone'
import { CheckPicture } from '../../kit/drawing/CheckPicture'
import { Scale } from '../../kit/scale/Scale'
import type { AloneScale } from './aloneScale'
import { AloneNumbers } from './AloneNumbers'
import styles from './alone.module.css'

type Props = Readonly<{
  step: Exclude<AloneStep, { kind: 'end' | 'talk' }>
  rows: readonly Evidence[]
  scales: readonly AloneScale[]
  /** The step of the last tap is being computed: nothing is tapped twice. */
  isWaiting: boolean
  onRows: (...rows: readonly Evidence[]) => void
  picture: ReactNode
  gettingOn: ReactNode
}>

/** One step: a picture, one sentence, and the answers. */
export function AloneStepCard({ step, rows, scales, isWaiting, onRows, picture, gettingOn }: Props) {
  const at: Marks = rows.findLast(({ kind }) => kind === 'set')?.at ?? {}
  const own = { readBy: 'rider', at } as const
  const add = (...answered: readonly Evidence[]) => {
    if (!isWaiting) onRows(...answered)
  }
  switch (step.kind) {
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
          {step.why === 'low' ? (
            <>
              {picture}
              <Choices
                ask={{ ...HEEL, title: HEEL_LOW }}
                add={(heel) => add({ kind: 'set', at: step.marks }, heelRow(heel, step.marks))}
              />
            </>
          ) : (
            <button
              type="button"
              className={styles.go}
              disabled={isWaiting}
              onClick={() => add({ kind: 'set', at: step.marks })}
            >
              {done}
            </button>
          )}
          {step.why === 'yours' && picture}
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
          ask={FOREARM}
          add={(mm) => add({ kind: 'forearmGauge', gapMm: Number(mm), ...own })}
        />
      )
    case 'heel':
      return <Check check="heelCheck" ask={HEEL} add={(heel) => add(heelRow(heel, at))} />
    case 'knee':
      return <Check check="kneeByEye" ask={KNEE} add={(seen) => add({ kind: 'kneeByEye', seen, ...own })} />
    case 'lookDown':
      return <Check check="plumbByEye" ask={LOOK_DOWN} add={(seen) => add({ kind: 'plumbByEye', seen, ...own })} />
    case 'elbows':
      return <Check check="elbows" ask={ELBOWS} add={(seen) => add({ kind: 'elbows', seen, ...own })} />
  }
}

/** The heel's answer as a row: short by a little or by much is a heel that does not reach. */
function heelRow(heel: (typeof HEEL.choices)[number]['value'], at: Marks): Evidence {
  const seen = heel === 'little' || heel === 'much' ? ({ seen: 'cannotReach', short: heel } as const) : { seen: heel }
  return { kind: 'heelCheck', ...seen, readBy: 'rider', at }
}

type PictureProps = Parameters<typeof CheckPicture>[0]
const Picture = ({ check, landmark = 'hipCrest' }: Pick<PictureProps, 'check'> & Partial<PictureProps>) => (
  <div className={styles.picture}>
    <CheckPicture check={check} landmark={landmark} />
  </div>
)

type Asked<V extends string> = Readonly<{
  ask: Readonly<{ title: string; choices: readonly Readonly<{ value: V; name: string }>[] }>
  add: (value: V) => void
}>

function Check<V extends string>({ check, ...asked }: Asked<V> & Readonly<{ check: PictureProps['check'] }>) {
  return (
    <>
      <Picture check={check} />
      <Choices {...asked} />
    </>
  )
}

function Choices<V extends string>({ ask: { title, choices }, add }: Asked<V>) {
  return (
    <>
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
