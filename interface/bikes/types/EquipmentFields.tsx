import { Input, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { PEDAL_SIDES, type PedalSide } from '@/core/bikes/bike/bike'
import { BRAKE_TYPES } from '@/core/bikes/bike/equipment'
import { LANDMARK_NAME } from '@/core/messages/setups/checks'
import { START_LANDMARKS } from '@/core/base/school/school'
import parts from '../parts.module.css'
import type { TypeDraft } from './typeDraft'

const START_NAME: Readonly<Record<(typeof START_LANDMARKS)[number], string>> = {
  ...LANDMARK_NAME,
  factor0883: 'Inseam factor',
  percent109: '109 %',
  heelLength: 'Heel length',
}
type Equipment = TypeDraft['equipment']
type Props = Readonly<{ equipment: Equipment; onChange: (equipment: Equipment) => void }>

/** The systems with one side's words changed; nothing where no side has any. */
function systemsWith({ pedalSystems }: Equipment, side: PedalSide, words: string): Pick<Equipment, 'pedalSystems'> {
  const { [side]: _, ...rest } = pedalSystems ?? {}
  const systems = { ...rest, ...(words.trim() !== '' && { [side]: words }) }
  return { pedalSystems: Object.keys(systems).length > 0 ? systems : undefined }
}

/** What of a type is no length: pedal sides, how the wheel is stopped, landmarks that are valid. */
export function EquipmentFields({ equipment, onChange }: Props) {
  return (
    <fieldset className={parts.group}>
      <legend>The sheet</legend>
      <div className={parts.fields}>
        <label>
          Pedal sides
          <Select
            size="large"
            mode="multiple"
            aria-label="Pedal sides"
            value={[...equipment.pedalSides]}
            onChange={(pedalSides) => onChange({ ...equipment, pedalSides })}
            options={PEDAL_SIDES.map((value) => ({ value, label: value }))}
          />
        </label>
        {PEDAL_SIDES.filter((side) => equipment.pedalSides.includes(side)).map((side) => (
          <label key={side}>
            {side === 'cage' ? 'Cage takes' : 'Cleat side takes'}
            <Input
              size="large"
              autoComplete="off"
              maxLength={40}
              value={equipment.pedalSystems?.[side] ?? ''}
              onChange={(event) => onChange({ ...equipment, ...systemsWith(equipment, side, event.target.value) })}
            />
          </label>
        ))}
        <label>
          The wheel is stopped by
          <Select
            size="large"
            aria-label="The wheel is stopped by"
            value={equipment.stop}
            onChange={(stop) => onChange({ ...equipment, stop })}
            options={BRAKE_TYPES.map((value) => ({
              value,
              label: { push: 'pushing the knob', lever: 'a lever', none: 'the legs only' }[value],
            }))}
          />
        </label>
        <label className={parts.wide}>
          Landmarks valid here
          <Select
            size="large"
            mode="multiple"
            aria-label="Landmarks valid here"
            value={[...equipment.landmarks]}
            onChange={(landmarks) => onChange({ ...equipment, landmarks })}
            options={START_LANDMARKS.map((value) => ({ value, label: START_NAME[value] }))}
          />
        </label>
      </div>
    </fieldset>
  )
}
