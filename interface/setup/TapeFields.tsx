import { Button, Switch } from 'antd'
import { useState } from 'react'
import { NO_BODY_LENGTH, RARE_INSEAM } from '@/core/messages/lengths'
import { latest } from '@/core/evidence/evidence'
import { formatBodyLength } from '@/core/units/length'
import { LengthField } from '../shared/LengthField'
import { useUnitSystem } from '../shared/DevicePreferences'
import type { StepPanelProps } from './stepPanelProps'
import { latestRow } from './flow'
import { parseBodyLengths } from './parseBodyLengths'
import styles from './tapeFields.module.css'

/**
 * Stature and inseam by tape. What cannot be is refused in words, what is rare is asked about; what was typed stays.
 */
export function TapeFields({ rows, onReplace }: StepPanelProps) {
  const { shown } = useUnitSystem()
  const evidence = rows.map((r) => r.row)
  const format = (mm: number | undefined) => (mm === undefined ? '' : formatBodyLength(mm, shown))
  const [stature, setStature] = useState(() => format(latest(evidence, 'stature')?.mm))
  const [inseam, setInseam] = useState(() => format(latest(evidence, 'inseam')?.mm))
  const [shod, setShod] = useState(latest(evidence, 'inseam')?.shod ?? false)
  const [asked, setAsked] = useState(false)
  const { statureMm, inseamMm, wrong, trouble, rare } = parseBodyLengths({ stature, inseam }, shown)

  function save() {
    const nothing = statureMm === null && inseamMm === null
    if (trouble || nothing || (rare && !asked)) return setAsked(true)
    if (statureMm !== null) onReplace(latestRow(rows, 'stature'), { kind: 'stature', mm: statureMm })
    if (inseamMm !== null) onReplace(latestRow(rows, 'inseam'), { kind: 'inseam', mm: inseamMm, shod })
    setAsked(false)
  }

  const asks = rare ? RARE_INSEAM : statureMm === null && inseamMm === null ? NO_BODY_LENGTH : ''
  return (
    <div className={styles.tape}>
      <LengthField
        title="Stature"
        typed={stature}
        onTyped={(v) => {
          setStature(v)
          setAsked(false)
        }}
        wrong={asked && wrong === 'stature'}
        describedBy="tape-said"
        placeholder={shown === 'imperial' ? '5′8″' : 'cm'}
      />
      <LengthField
        title="Inseam"
        typed={inseam}
        onTyped={(v) => {
          setInseam(v)
          setAsked(false)
        }}
        wrong={asked && (wrong === 'inseam' || rare)}
        onEnter={save}
        describedBy="tape-said"
        placeholder={shown === 'imperial' ? 'in' : 'cm'}
      />
      <label className={styles.shod}>
        <Switch checked={shod} onChange={setShod} />
        in shoes
      </label>
      <Button size="large" onClick={save}>
        {rare && asked ? 'Yes, keep it' : 'Keep'}
      </Button>
      <p id="tape-said" className={styles.tapeSaid} aria-live="polite">
        {asked && (trouble || asks)}
      </p>
    </div>
  )
}
