'use client'
import { Button } from 'antd'
import { useState } from 'react'
import type { BikeType } from '@/core/bikes/bike/bike'
import { saddleOn } from '@/core/bikes/saddles/saddle'
import { measuredAxesOf } from '@/core/bikes/calibration/readings'
import { LENGTHS } from '@/core/bikes/calibration/readings'
import type { AxisName, Label, Marks } from '@/core/base/conventions'
import { positionsOf } from '@/core/bikes/scale/scale'
import { formatLabel, formatMarks } from '@/core/messages/words/labels'
import { LENGTH_NAME } from '@/core/messages/bikes/calibration'
import { BikeDrawing } from '../../kit/drawing/BikeDrawing'
import { Scale } from '../../kit/scale/Scale'
import { LengthField } from '../../kit/LengthField'
import { axisTitle } from '@/core/messages/words/phrases'
import parts from '../parts.module.css'
import type { Machine } from './machine'
import { useSaveTape } from '../tape/useSaveTape'

/** One reading of this machine: marks tapped on its scales, whichever lengths were read. */
export function MachineReadingForm({ bike }: { bike: Machine }) {
  const {
    typed,
    type,
    keep: save,
    warning,
    busy,
    shown,
  } = useSaveTape(saddleOn(bike.type, bike.machineCalibration).noseAheadMm)
  const [marks, setMarks] = useState<Marks>(() =>
    Object.fromEntries(measuredAxesOf(bike.type).map((axis) => [axis, middleLabel(bike.type, axis)])),
  )

  return (
    <>
      <details className={parts.other}>
        <summary>Set at {formatMarks(bike.type, marks)}. It stands at other marks?</summary>
        {measuredAxesOf(bike.type).map((axis) => (
          <Scale
            key={axis}
            title={axisTitle(bike.type, axis)}
            way="level"
            drawnAs="holes"
            remark=""
            marks={positionsOf(bike.type.axes[axis]!.scale).map(({ label }) => ({
              label,
              text: formatLabel(bike.type, axis, label),
              set: marks[axis] === label,
              isTarget: false,
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
            onTyped={(text) => type(length, text)}
            onEnter={() => save(bike.id, marks)}
            placeholder={shown === 'imperial' ? 'in' : 'mm'}
          />
        ))}
      </div>
      <p className={parts.faults} aria-live="polite">
        {warning}
      </p>
      <Button size="large" type="primary" loading={busy} onClick={() => save(bike.id, marks)}>
        Keep the reading
      </Button>
    </>
  )
}

/** The label half-way along a scale: a reading there covers the whole range best. */
function middleLabel(type: BikeType, axis: AxisName): Label {
  const positions = positionsOf(type.axes[axis]!.scale)
  return positions[Math.floor(positions.length / 2)].label
}
