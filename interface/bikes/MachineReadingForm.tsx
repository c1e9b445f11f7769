'use client'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { axesOf, type BikeType } from '@/core/bike/bike'
import { LENGTHS, type TapeReading } from '@/core/calibration/readings'
import type { AxisName, Label, Marks } from '@/core/conventions'
import { positionsOf } from '@/core/scale/scale'
import { formatLabel, formatMarks } from '@/core/messages/labels'
import { LENGTH_NAME } from '@/core/messages/calibration'
import { BikeDrawing } from '../drawing/BikeDrawing'
import { Scale } from '../drawing/Scale'
import { LengthField } from '../shared/LengthField'
import { AXIS_TITLE } from '@/core/messages/phrases'
import { useUnitSystem } from '../shared/Providers'
import { addBikeReading, compareTapeReading } from './actions'
import parts from './parts.module.css'
import type { Machine } from './machine'
import { EMPTY_LENGTHS, parseTape } from './parseTape'
import { useIdempotencyKey } from '../shared/useIdempotencyKey'
import { useAction } from '../shared/useAction'

/** One reading of this machine: marks tapped on its scales, whichever lengths were read. */
export function MachineReadingForm({ bike }: { bike: Machine }) {
  const router = useRouter()
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const { modal } = App.useApp()
  const [marks, setMarks] = useState<Marks>(() =>
    Object.fromEntries(axesOf(bike.type).map((axis) => [axis, middleLabel(bike.type, axis)])),
  )
  const [typed, setTyped] = useState(EMPTY_LENGTHS)
  const [warning, setWarning] = useState('')

  async function save() {
    const { lengths, wrong } = parseTape(
      typed,
      { setback: 'direct', reach: 'seat' },
      bike.type.saddle.noseAheadMm,
      shown,
    )
    if (wrong) return setWarning(wrong)
    const row: TapeReading = { marks, lengths }
    const weighed = await act(() => compareTapeReading(bike.id, row, shown))
    if (!weighed) return
    if (weighed.says.length === 0) return store(row, false)
    modal.confirm({
      title: 'This does not agree with the last tape',
      content: weighed.says.map((line) => <p key={line}>{line}</p>),
      okText: 'The bike has changed, keep it',
      cancelText: 'Measure again',
      onOk: () => store(row, true),
    })
  }

  async function store(row: TapeReading, resetsBaseline: boolean) {
    const reading = { kind: 'tape' as const, ...row, resetsBaseline }
    if (!(await act(() => addBikeReading(idFor(reading), bike.id, reading)))) return
    forget()
    setTyped(EMPTY_LENGTHS)
    setWarning('')
    router.refresh()
  }

  return (
    <>
      <details className={parts.other}>
        <summary>Set at {formatMarks(bike.type, marks)}; it stands elsewhere</summary>
        {axesOf(bike.type).map((axis) => (
          <Scale
            key={axis}
            title={AXIS_TITLE[axis]}
            way="level"
            drawnAs="holes"
            remark=""
            marks={positionsOf(bike.type.axes[axis]!.scale).map(({ label }) => ({
              label,
              text: formatLabel(bike.type, axis, label),
              set: marks[axis] === label,
              wanted: false,
            }))}
            onTap={(label) => setMarks((m) => ({ ...m, [axis]: label }))}
          />
        ))}
      </details>
      <div className={parts.measuredDrawing}>
        <BikeDrawing
          bikeType={bike.type}
          bike={bike.machineCalibration}
          marks={marks}
          shown={shown}
          lengths={LENGTHS}
        />
      </div>
      <div className={parts.fields}>
        {LENGTHS.map((length) => (
          <LengthField
            key={length}
            title={LENGTH_NAME[length]}
            typed={typed[length]}
            onTyped={(v) => {
              setTyped((t) => ({ ...t, [length]: v }))
              setWarning('')
            }}
            onEnter={save}
            placeholder={shown === 'imperial' ? 'in' : 'mm'}
          />
        ))}
      </div>
      <p className={parts.faults} aria-live="polite">
        {warning}
      </p>
      <Button size="large" type="primary" loading={busy} onClick={save}>
        Keep the reading
      </Button>
    </>
  )
}

/** The label half-way along a scale: a reading there says most of the whole range. */
function middleLabel(type: BikeType, axis: AxisName): Label {
  const positions = positionsOf(type.axes[axis]!.scale)
  return positions[Math.floor(positions.length / 2)].label
}
