'use client'
import type { AxisName, Marks } from '@/core/base/conventions'
import type { BikeType } from '@/core/bikes/bike/bike'
import { formatLabel } from '@/core/messages/words/labels'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import { movableAxes } from '@/core/setups/moves/move'
import styles from './move.module.css'

/** Short enough for a row of four beside other things. */
const SHORT: Readonly<Record<AxisName, string>> = {
  seatHeight: 'Seat ↕',
  seatSlide: 'Seat ↔',
  barHeight: 'Bars ↕',
  barSlide: 'Bars ↔',
}

/** A rider's numbers, each a button: the one that is tapped is to be moved, tapped again it is left. */
export function NumberCells({
  type,
  marks,
  chosen,
  choose,
}: Readonly<{ type: BikeType; marks: Marks; chosen: AxisName | null; choose: (axis: AxisName | null) => void }>) {
  return (
    <div className={styles.cells} role="group" aria-label="Numbers">
      {movableAxes(type, marks).map(({ axis, label }) => (
        <button
          key={axis}
          type="button"
          aria-label={`${AXIS_TITLE[axis]} ${formatLabel(type, axis, label)}, move it`}
          aria-pressed={chosen === axis}
          onClick={() => choose(chosen === axis ? null : axis)}
        >
          <small>{SHORT[axis]}</small>
          <b>{formatLabel(type, axis, label)}</b>
        </button>
      ))}
    </div>
  )
}
