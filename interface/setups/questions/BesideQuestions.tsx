import { Button, Segmented } from 'antd'
import { useState } from 'react'
import type { Evidence } from '@/core/riders/evidence/registry'
import { LANDMARKS_AT_MARK } from '@/core/riders/evidence/definition/landmarks'
import { LANDMARK_NAME } from '@/core/messages/setups/checks'
import { parseLength } from '@/core/base/length'
import { bodyUnit, LengthField } from '../../kit/LengthField'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { ChoiceGroup } from '../steps/ChoiceGroup'
import styles from '../steps/questions.module.css'
import type { StepPanelProps } from '../steps/stepPanelProps'

const LANDMARK_CHOICES = LANDMARKS_AT_MARK.map((value) => ({ value, name: LANDMARK_NAME[value] }))

/** Which landmark the saddle is brought level with; the mark it meets is tapped on the scale. */
export function LandmarkQuestions({ landmark, context: { landmarks }, actions: { onLandmark } }: StepPanelProps) {
  return (
    <ChoiceGroup
      title="Saddle top level with"
      given={landmark}
      choices={LANDMARK_CHOICES.filter(({ value }) => landmarks.includes(value))}
      onChoose={onLandmark}
    />
  )
}

type Limb = 'thigh' | 'shank' | 'trunk' | 'arm' | 'foot' | 'trochanter'
const LIMBS: readonly Readonly<{ value: Limb; label: string }>[] = [
  { value: 'trochanter', label: 'Hip knob' },
  { value: 'thigh', label: 'Thigh' },
  { value: 'shank', label: 'Shank' },
  { value: 'trunk', label: 'Trunk' },
  { value: 'arm', label: 'Arm' },
  { value: 'foot', label: 'Foot' },
]
const RANGE_MM: Readonly<Record<Limb, readonly [number, number]>> = {
  trochanter: [600, 1250],
  thigh: [280, 620],
  shank: [280, 620],
  trunk: [350, 700],
  arm: [400, 900],
  foot: [180, 360],
}

const rowOf = (limb: Limb, mm: number): Evidence =>
  limb === 'trochanter'
    ? { kind: 'landmarkHeight', landmark: 'trochanter', mm, shod: false }
    : { kind: 'segment', segment: limb, mm }

const isOf = (limb: Limb, row: Evidence): boolean =>
  limb === 'trochanter'
    ? row.kind === 'landmarkHeight' && row.landmark === 'trochanter'
    : row.kind === 'segment' && row.segment === limb

/** One limb, or the height of the thigh's bony knob, by tape. */
export function LimbQuestions({ rows, actions: { onReplace } }: StepPanelProps) {
  const { shown } = useUnitSystem()
  const [limb, setLimb] = useState<Limb>('trochanter')
  const [typed, setTyped] = useState('')
  const [isConfirming, setConfirming] = useState(false)
  const read = parseLength(typed, bodyUnit(shown))
  const mm = read.outcome === 'read' ? read.mm : null
  const [low, high] = RANGE_MM[limb]
  const suits = mm !== null && mm >= low && mm <= high
  const given = rows.findLast(({ row }) => isOf(limb, row))
  const savedText = given && 'mm' in given.row ? `kept: ${(given.row.mm / 10).toFixed(1)} cm` : ''
  function save() {
    setConfirming(true)
    if (!suits) return
    onReplace(given, rowOf(limb, mm))
    setTyped('')
    setConfirming(false)
  }
  return (
    <div className={styles.limbs}>
      <Segmented
        value={limb}
        options={[...LIMBS]}
        onChange={(next) => {
          setLimb(next)
          setTyped('')
          setConfirming(false)
        }}
      />
      <div className={styles.limb}>
        <LengthField
          title={limb === 'trochanter' ? 'Floor to hip knob' : 'Length'}
          typed={typed}
          onTyped={setTyped}
          wrong={isConfirming && !suits}
          onEnter={save}
          describedBy="limb-said"
          placeholder={shown === 'imperial' ? 'in' : 'cm'}
        />
        <Button size="large" onClick={save}>
          Keep
        </Button>
        <p id="limb-said" className={styles.limbSaid} aria-live="polite">
          {isConfirming && !suits ? `From ${low / 10} to ${high / 10} cm is possible.` : savedText}
        </p>
      </div>
    </div>
  )
}
