'use client'
import { Button, InputNumber, Switch } from 'antd'
import { useState } from 'react'
import { latest } from '@/core/evidence/evidence'
import { USUAL_INSEAM_SHARE } from '@/core/recommend/doubts'
import type { DockProps } from './dockProps'
import { latestRow } from './flow'
import styles from './setup.module.css'

type Field = 'stature' | 'inseam'
const LIMITS_CM: Readonly<Record<Field, readonly [number, number]>> = { stature: [100, 250], inseam: [40, 130] }

/** Stature and inseam by tape, in centimetres. What cannot be is refused in words, what is rare is asked about; what was typed stays. */
export function TapeFields({ rows, onReplace }: DockProps) {
  const evidence = rows.map((r) => r.row)
  const [stature, setStature] = useState<number | null>(cmOf(latest(evidence, 'stature')?.mm))
  const [inseam, setInseam] = useState<number | null>(cmOf(latest(evidence, 'inseam')?.mm))
  const [shod, setShod] = useState(latest(evidence, 'inseam')?.shod ?? false)
  const [asked, setAsked] = useState(false)
  const trouble = wrong(stature, inseam)
  const rare = trouble === '' && unusual(stature, inseam)

  function keep() {
    if (trouble || (stature === null && inseam === null)) return setAsked(true)
    if (rare && !asked) return setAsked(true)
    if (stature !== null) onReplace(latestRow(rows, 'stature'), { kind: 'stature', mm: Math.round(stature * 10) })
    if (inseam !== null) onReplace(latestRow(rows, 'inseam'), { kind: 'inseam', mm: Math.round(inseam * 10), shod })
    setAsked(false)
  }

  return (
    <div className={styles.tape}>
      <label>
        Stature, cm
        <InputNumber size="large" value={stature} onChange={(v) => (setStature(v), setAsked(false))} status={trouble && asked ? 'error' : ''} inputMode="decimal" aria-describedby="tape-said" controls={false} />
      </label>
      <label>
        Inseam, cm
        <InputNumber size="large" value={inseam} onChange={(v) => (setInseam(v), setAsked(false))} status={(trouble || rare) && asked ? 'error' : ''} inputMode="decimal" aria-describedby="tape-said" controls={false} onPressEnter={keep} />
      </label>
      <label className={styles.shod}>
        <Switch checked={shod} onChange={setShod} />
        in shoes
      </label>
      <Button size="large" onClick={keep}>
        {rare && asked ? 'Yes, keep it' : 'Keep'}
      </Button>
      <p id="tape-said" className={styles.tapeSaid} aria-live="polite">
        {asked && (trouble || (rare ? 'That inseam is rare for this stature. Measured twice?' : stature === null && inseam === null ? 'Type one of the two, or go by landmark.' : ''))}
      </p>
    </div>
  )
}

const cmOf = (mm: number | undefined): number | null => (mm === undefined ? null : mm / 10)

function wrong(stature: number | null, inseam: number | null): string {
  for (const [field, cm] of [['stature', stature], ['inseam', inseam]] as const) {
    const [least, most] = LIMITS_CM[field]
    if (cm !== null && (cm < least || cm > most)) return `A ${field} of ${cm} cm cannot be; ${least} to ${most} cm can.`
  }
  return stature !== null && inseam !== null && inseam >= stature ? 'An inseam cannot be as long as the whole body.' : ''
}

function unusual(stature: number | null, inseam: number | null): boolean {
  if (stature === null || inseam === null) return false
  return inseam / stature < USUAL_INSEAM_SHARE[0] || inseam / stature > USUAL_INSEAM_SHARE[1]
}
