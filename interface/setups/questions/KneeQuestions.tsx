import { Segmented } from 'antd'
import { useState } from 'react'
import { MOVING_MORE_DEG } from '@/core/base/measurementNoise'
import type { EvidenceKind } from '@/core/riders/evidence/registry'
import { ChoiceGroup } from '../steps/ChoiceGroup'
import { rowsSinceSet, type Row } from '../steps/flow'
import styles from '../steps/questions.module.css'
import { SliderInput } from '../steps/SliderInput'
import type { StepPanelProps } from '../steps/stepPanelProps'
import { TypedAngle } from './TypedAngle'
import { SideChoice, sideOf, type SideLookedAt } from './SideChoice'

/** The latest row of a kind since the saddle was set, seen on one side, or on none. */
function latestOn(rows: readonly Row[], kind: EvidenceKind, side: SideLookedAt): Row | undefined {
  return rowsSinceSet(rows).findLast(({ row }) => row.kind === kind && row.side === sideOf(side).side)
}

/** The knee by eye, with the ball of the foot on the pedal and with the heel. */
export function KneeByEyeQuestions({
  rows,
  shown: at,
  context: { school, shorterLeg },
  actions: { onReplace },
}: StepPanelProps) {
  const [side, setSide] = useState<SideLookedAt>(shorterLeg ?? 'either')
  const eye = latestOn(rows, 'kneeByEye', side)
  const heel = latestOn(rows, 'heelCheck', side)
  return (
    <>
      <SideChoice side={side} onSide={setSide} apart={shorterLeg !== null} />
      <ChoiceGroup
        title="Ball of the foot on the pedal"
        given={eye?.row.kind === 'kneeByEye' ? eye.row.seen : undefined}
        choices={[
          { value: 'locked', name: 'Locked' },
          { value: 'slightBend', name: 'Slight bend' },
          { value: 'deepBend', name: 'Deep bend' },
        ]}
        onChoose={(seen) => onReplace(eye, { kind: 'kneeByEye', seen, at, ...sideOf(side) })}
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
          onChoose={(seen) => onReplace(heel, { kind: 'heelCheck', seen, at, ...sideOf(side) })}
        />
      )}
    </>
  )
}

type KneeMeaning = 'ball' | 'heel' | 'moving'
const KNEE_TITLE: Readonly<Record<KneeMeaning, string>> = {
  ball: 'Knee bend at the bottom, degrees',
  heel: 'Knee bend with the heel on the pedal, degrees; on the ball 15 to 20 more',
  moving: `Knee bend while turning, degrees; held still some ${MOVING_MORE_DEG} less`,
}

/** The knee's angle, and what the reading means: with what, which leg, ball or heel, still or turning. */
export function KneeAngleQuestions({
  rows,
  answer,
  shown: at,
  context: { school, shorterLeg },
  actions: { onReplace },
}: StepPanelProps) {
  const [side, setSide] = useState<SideLookedAt>(shorterLeg ?? 'either')
  const angle = latestOn(rows, 'kneeAngle', side)
  const reading = angle?.row.kind === 'kneeAngle' ? angle.row : undefined
  const [by, setBy] = useState<'goniometer' | 'photo'>(reading?.by === 'photo' ? 'photo' : 'goniometer')
  const [meaning, setMeaning] = useState<KneeMeaning>(
    reading?.moving ? 'moving' : reading?.foot === 'heel' ? 'heel' : 'ball',
  )
  const read = (deg: number) =>
    onReplace(angle, {
      kind: 'kneeAngle',
      deg,
      by,
      at,
      ...sideOf(side),
      ...(meaning === 'heel' && { foot: 'heel' as const }),
      ...(meaning === 'moving' && { moving: true }),
    })
  return (
    <>
      <div className={styles.meanings}>
        <div className={styles.row}>
          <SideChoice side={side} onSide={setSide} apart={shorterLeg !== null} />
          <Segmented
            aria-label="Read with"
            value={by}
            onChange={setBy}
            options={[
              { value: 'goniometer', label: 'Goniometer' },
              { value: 'photo', label: 'Picture' },
            ]}
          />
        </div>
        <div className={styles.row}>
          <Segmented
            aria-label="How it was read"
            value={meaning}
            onChange={setMeaning}
            options={[
              { value: 'ball', label: 'Ball, held' },
              { value: 'heel', label: 'Heel' },
              { value: 'moving', label: 'Turning' },
            ]}
          />
          <TypedAngle onRead={read} />
        </div>
      </div>
      <SliderInput
        key={`${side} ${angle?.id ?? 'unread'}`}
        title={KNEE_TITLE[meaning]}
        unit="°"
        from={0}
        to={70}
        step={1}
        window={school.kneeWindowDeg}
        start={Math.round(Math.min(70, Math.max(0, answer?.belief.kneeFlexionDeg.mean ?? 30)))}
        given={reading?.deg}
        name={(v) => `${v} degrees`}
        onRead={read}
      />
    </>
  )
}

/** The pelvis from behind, and which part of the foot was on the pedal. */
export function RockingQuestions({ rows, shown: at, actions: { onReplace } }: StepPanelProps) {
  const [foot, setFoot] = useState<'ball' | 'heel'>('ball')
  const row = rowsSinceSet(rows).findLast(({ row: r }) => r.kind === 'rocking' && (r.foot ?? 'ball') === foot)
  return (
    <>
      <Segmented
        aria-label="Foot"
        value={foot}
        onChange={setFoot}
        options={[
          { value: 'ball', label: 'Ball' },
          { value: 'heel', label: 'Heel' },
        ]}
      />
      <ChoiceGroup
        title="The pelvis from behind"
        given={row?.row.kind === 'rocking' ? row.row.seen : undefined}
        choices={[
          { value: 'level', name: 'Level' },
          { value: 'both', name: 'Rocks both ways' },
          { value: 'left', name: 'To the left' },
          { value: 'right', name: 'To the right' },
        ]}
        onChoose={(seen) => onReplace(row, { kind: 'rocking', seen, foot, at })}
      />
    </>
  )
}

/** The foot's angle at the bottom of the stroke. */
export function FootPitchQuestions({ rows, shown: at, context: { school }, actions: { onReplace } }: StepPanelProps) {
  const row = latestOn(rows, 'footPitch', 'either')
  return (
    <SliderInput
      key={row?.id ?? 'unread'}
      title="Heel up against level, degrees"
      unit="°"
      from={-10}
      to={40}
      step={1}
      window={school.foot === 'level' ? [0, 10] : [8, 22]}
      start={school.foot === 'level' ? 5 : 15}
      given={row?.row.kind === 'footPitch' ? row.row.deg : undefined}
      name={(v) => `${v} degrees`}
      onRead={(deg) => onReplace(row, { kind: 'footPitch', deg, at })}
    />
  )
}
