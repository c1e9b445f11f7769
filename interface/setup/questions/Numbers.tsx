import { axesOf } from '@/core/bike/bike'
import { formatLabel } from '@/core/messages/labels'
import { AXIS_TITLE } from '@/core/messages/phrases'
import styles from '../questions.module.css'
import type { StepPanelProps } from '../stepPanelProps'

/** The numbers as they stand, and beside each the marks the rider may try alone. */
export function Numbers({ bikeType, shown, answer }: StepPanelProps) {
  return (
    <dl className={styles.numbers}>
      {axesOf(bikeType).map((axis) => {
        const alone = answer?.tryAlone[axis] ?? []
        return (
          <div key={axis}>
            <dt>
              {AXIS_TITLE[axis]}
              <span className={styles.alone}>
                {alone.length > 0 && `may try ${alone.map((label) => formatLabel(bikeType, axis, label)).join(', ')}`}
              </span>
            </dt>
            <dd>{shown[axis] === undefined ? '–' : formatLabel(bikeType, axis, shown[axis])}</dd>
          </div>
        )
      })}
    </dl>
  )
}
