'use client'
import type { AxisName, Marks } from '@/core/base/conventions'
import { ADJUSTMENT_WORDS } from '@/core/messages/words/adjustments'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import { labelText, movableAxes, type FloorScales } from '@/core/setups/moves/move'
import styles from './move.module.css'

/** A rider's numbers, each a button: the one that is tapped is to be moved, tapped again it is left. */
export function NumberCells({
  scales,
  marks,
  chosen,
  choose,
}: Readonly<{ scales: FloorScales; marks: Marks; chosen: AxisName | null; choose: (axis: AxisName | null) => void }>) {
  return (
    <div className={styles.cells} role="group" aria-label="Numbers">
      {movableAxes(scales, marks).map(({ axis, label }) => (
        <button
          key={axis}
          type="button"
          aria-label={`${AXIS_TITLE[axis]} ${labelText(scales, axis, label)}, move it`}
          aria-pressed={chosen === axis}
          onClick={() => choose(chosen === axis ? null : axis)}
        >
          <small>{ADJUSTMENT_WORDS[axis].short}</small>
          <b>{labelText(scales, axis, label)}</b>
        </button>
      ))}
    </div>
  )
}
