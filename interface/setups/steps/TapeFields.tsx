import { Button, Switch } from 'antd'
import '@/interface/kit/antd/switch.generated.css'
import { useState } from 'react'
import { NO_BODY_LENGTH, RARE_INSEAM } from '@/core/messages/words/lengths'
import { latest } from '@/core/riders/evidence/evidence'
import { formatBodyLength } from '@/core/base/length'
import { LengthField } from '../../kit/LengthField'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import type { StepPanelProps } from './stepPanelProps'
import { latestRow } from './flow'
import { parseBodyLengths } from './parseBodyLengths'
import styles from './tapeFields.module.css'

/**
 * Stature and inseam by tape. Impossible values are refused in words, rare ones need a confirmation; the typed text
 * stays.
 */
export function TapeFields({ rows, actions: { onReplace } }: StepPanelProps) {
  const { shown } = useUnitSystem()
  const evidence = rows.map((r) => r.row)
  const format = (mm: number | undefined) => (mm === undefined ? '' : formatBodyLength(mm, shown))
  const [stature, setStature] = useState(() => format(latest(evidence, 'stature')?.mm))
  const [inseam, setInseam] = useState(() => format(latest(evidence, 'inseam')?.mm))
  const [shod, setShod] = useState(latest(evidence, 'inseam')?.shod ?? false)
  const [isConfirming, setConfirming] = useState(false)
  const { statureMm, inseamMm, wrong, trouble, rare } = parseBodyLengths({ stature, inseam }, shown)

  function save() {
    const nothing = statureMm === null && inseamMm === null
    if (trouble || nothing || (rare && !isConfirming)) return setConfirming(true)
    if (statureMm !== null) onReplace(latestRow(rows, 'stature'), { kind: 'stature', mm: statureMm })
    if (inseamMm !== null) onReplace(latestRow(rows, 'inseam'), { kind: 'inseam', mm: inseamMm, shod })
    setConfirming(false)
  }

  const warning = rare ? RARE_INSEAM : statureMm === null && inseamMm === null ? NO_BODY_LENGTH : ''
  return (
    <div className={styles.tape}>
      <LengthField
        title="Stature"
        typed={stature}
        onTyped={(v) => {
          setStature(v)
          setConfirming(false)
        }}
        wrong={isConfirming && wrong === 'stature'}
        describedBy="tape-said"
        placeholder={shown === 'imperial' ? '5′8″' : 'cm'}
      />
      <LengthField
        title="Inseam"
        typed={inseam}
        onTyped={(v) => {
          setInseam(v)
          setConfirming(false)
        }}
        wrong={isConfirming && (wrong === 'inseam' || rare)}
        onEnter={save}
        describedBy="tape-said"
        placeholder={shown === 'imperial' ? 'in' : 'cm'}
      />
      <label className={styles.shod}>
        <Switch checked={shod} onChange={setShod} />
        in shoes
      </label>
      <Button size="large" onClick={save}>
        {rare && isConfirming ? 'Yes, keep it' : 'Keep'}
      </Button>
      <p id="tape-said" className={styles.tapeSaid} aria-live="polite">
        {isConfirming && (trouble || warning)}
      </p>
    </div>
  )
}
