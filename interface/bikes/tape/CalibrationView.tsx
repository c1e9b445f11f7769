'use client'
import { Button } from 'antd'
import { useState } from 'react'
import { axisOf, type BikeType } from '@/core/bikes/bike/bike'
import { SUFFICIENT_SD_MM, checkPlausibility } from '@/core/bikes/calibration/progress'
import { LENGTHS, measuredAxesOf, type TapeReading } from '@/core/bikes/calibration/readings'
import type { AxisName, Label, Marks } from '@/core/base/conventions'
import { positionsOf } from '@/core/bikes/scale/scale'
import { formatLabel } from '@/core/messages/words/labels'
import { formatCalibrationRefusal, formatInputWarning } from '@/core/messages/bikes/calibration'
import { BikeDrawing } from '../../kit/drawing/BikeDrawing'
import { Scale } from '../../kit/scale/Scale'
import { axisTitle } from '@/core/messages/words/phrases'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import parts from '../parts.module.css'
import styles from './calibrationView.module.css'
import { TapeFields } from './TapeFields'
import { TapeFindings } from './TapeFindings'
import { useTapeReadings } from './useTapeReadings'
import { ReadingsTable } from './ReadingsTable'
import { EMPTY_LENGTHS, parseTape, type TapeMethod, type TypedLengths } from './parseTape'

type Stored = Readonly<{ id: string; row: TapeReading }>
type Props = Readonly<{ typeId: string; bikeType: BikeType; stored: readonly Stored[] }>

/**
 * A type under the tape: which marks to set, four numbers, each against the fit, until every length is measured well
 * enough.
 */
export function CalibrationView({ typeId, bikeType, stored }: Props) {
  const { shown } = useUnitSystem()
  const { readings, rows, state, busy, add, withdraw, correct, finish } = useTapeReadings(typeId, bikeType, stored)
  const [chosen, setChosen] = useState<Marks | null>(null)
  const [typed, setTyped] = useState<TypedLengths>(EMPTY_LENGTHS)
  const [method, setMethod] = useState<TapeMethod>({ setback: 'direct', reach: 'seat' })
  const [warning, setWarning] = useState('')
  const marks = chosen ?? state.next.marks

  const type = (change: Partial<TypedLengths>) => {
    setTyped((t) => ({ ...t, ...change }))
    setWarning('')
  }

  async function save() {
    const { lengths, wrong } = parseTape(typed, method, bikeType.saddle.noseAheadMm, shown)
    if (wrong) return setWarning(wrong)
    const found = checkPlausibility(bikeType, rows, { marks, lengths })
    const inputWarning = found ? formatInputWarning(found, shown) : ''
    if (inputWarning && inputWarning !== warning) return setWarning(inputWarning)
    if (!(await add({ marks, lengths }))) return
    setTyped(EMPTY_LENGTHS)
    setWarning('')
    setChosen(null)
  }

  return (
    <>
      <div className={parts.head}>
        <h1>{bikeType.name} under the tape</h1>
      </div>
      <div className={styles.calibration}>
        <div>
          <p className={parts.sentence} aria-live="polite">
            {state.done
              ? `Done: every length is known to ${SUFFICIENT_SD_MM} mm over the whole range.`
              : readings.length === 0
                ? 'Set the bike as below, then read the four lengths from the crank axle.'
                : `Reading ${readings.length + 1}: set it as below, then read the four lengths.`}
          </p>
          <dl className={styles.setting}>
            {measuredAxesOf(bikeType).map((axis) => (
              <div key={axis}>
                <dt>{axisTitle(bikeType, axis)}</dt>
                <dd>{marks[axis] === undefined ? '–' : formatLabel(bikeType, axis, marks[axis])}</dd>
              </div>
            ))}
          </dl>
          <OtherSetting
            bikeType={bikeType}
            marks={marks}
            onSet={(axis, label) => setChosen({ ...marks, [axis]: label })}
          />
          <TapeFields typed={typed} method={method} onTyped={type} onMethod={setMethod} onEnter={save} />
          <p className={parts.faults} aria-live="polite">
            {warning}
          </p>
          <div className={parts.ways}>
            <Button size="large" type={state.done ? 'default' : 'primary'} loading={busy} onClick={save}>
              {warning.endsWith('?') ? 'Yes, keep it' : 'Keep the reading'}
            </Button>
            <Button
              size="large"
              type={state.done ? 'primary' : 'default'}
              disabled={state.blocked !== null}
              loading={busy}
              onClick={finish}
            >
              {state.done ? 'Put it in force' : 'Enough, put it in force'}
            </Button>
          </div>
        </div>
        <div>
          <div className={parts.measuredDrawing}>
            <BikeDrawing
              bikeType={state.fit.outcome === 'fitted' ? state.fit.bikeType : bikeType}
              marks={marks}
              shown={shown}
              lengths={LENGTHS}
            />
          </div>
          <TapeFindings
            bikeType={bikeType}
            readings={readings}
            fit={state.fit}
            busy={busy}
            onCorrect={correct}
            onWithdraw={withdraw}
          />
          {state.blocked && readings.length > 0 && (
            <p className={parts.quiet}>{formatCalibrationRefusal(bikeType, state.blocked)}</p>
          )}
          <ReadingsTable bikeType={bikeType} readings={readings} fit={state.fit} onWithdraw={withdraw} />
        </div>
      </div>
    </>
  )
}

/** Another setting than the one proposed, tapped on the bike's own scales. */
function OtherSetting({
  bikeType,
  marks,
  onSet,
}: {
  bikeType: BikeType
  marks: Marks
  onSet: (axis: AxisName, label: Label) => void
}) {
  return (
    <details className={parts.other}>
      <summary>It stands at other marks</summary>
      {measuredAxesOf(bikeType).map((axis) => (
        <Scale
          key={axis}
          title={axisTitle(bikeType, axis)}
          way="level"
          drawnAs="holes"
          remark=""
          marks={stopsDrawn(bikeType, axis, marks)}
          onTap={(label) => onSet(axis, label)}
        />
      ))}
    </details>
  )
}

function stopsDrawn(bikeType: BikeType, axis: AxisName, marks: Marks) {
  return positionsOf(axisOf(bikeType, axis)!.scale).map(({ label }) => ({
    label,
    text: formatLabel(bikeType, axis, label),
    set: marks[axis] === label,
    isTarget: false,
  }))
}
