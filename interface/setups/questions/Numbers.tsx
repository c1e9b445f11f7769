import { Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { axesOf } from '@/core/bikes/bike/bike'
import { MEANT_REASONS } from '@/core/riders/evidence/kinds/onBike/set'
import { formatLabel, formatTryAlone } from '@/core/messages/words/labels'
import { axisTitle, capitalized } from '@/core/messages/words/phrases'
import { MEANT_TEXT } from '@/core/messages/setups/recommendation'
import { PURPOSE_NAME } from '@/core/messages/setups/register'
import type { Recommendation } from '@/core/operations/requests/recommend'
import { PURPOSES } from '@/core/setups/register/entry'
import styles from '../steps/questions.module.css'
import type { StepPanelProps } from '../steps/stepPanelProps'

/** A mark less likely to suit than this needs a reason: slip, or on purpose? */
const MIN_CHANCE = 0.3

/** The current numbers, next to each the marks the rider may try alone, and what of them is on purpose. */
export function Numbers({
  shown,
  answer,
  set,
  context: { bikeType },
  saving: { finished, purpose },
  actions: { onAdd, onPurpose },
}: StepPanelProps) {
  const meant = answer?.next.meant
  return (
    <>
      <dl className={styles.numbers}>
        {axesOf(bikeType).map((axis) => {
          const alone = answer?.tryAlone[axis] ?? []
          return (
            <div key={axis}>
              <dt>
                {axisTitle(bikeType, axis)}
                <span className={styles.alone}>
                  {alone.length > 0 && formatTryAlone(bikeType, axis, alone, shown[axis])}
                </span>
              </dt>
              <dd>{shown[axis] === undefined ? '–' : formatLabel(bikeType, axis, shown[axis])}</dd>
            </div>
          )
        })}
      </dl>
      <div className={styles.kept}>
        {!finished && (
          <label className={styles.meant}>
            Kept for
            <Select
              size="large"
              value={purpose}
              options={PURPOSES.map((value) => ({ value, label: PURPOSE_NAME[value] }))}
              onChange={onPurpose}
            />
          </label>
        )}
        {answer && !finished && set && (meant || isExtreme(answer, shown)) && (
          <label className={styles.meant}>
            {meant ? 'On purpose' : 'These numbers are rare. On purpose?'}
            <Select
              size="large"
              allowClear
              placeholder="No, or not yet"
              value={meant}
              options={MEANT_REASONS.map((value) => ({ value, label: capitalized(MEANT_TEXT[value]) }))}
              onChange={(value) => onAdd({ kind: 'set', at: shown, ...(value && { meant: value }) })}
            />
          </label>
        )}
      </div>
    </>
  )
}

/** Whether the saddle is at an end of its scale, or where its check hardly passes. */
function isExtreme({ chances }: Recommendation, shown: StepPanelProps['shown']): boolean {
  return (['seatHeight', 'seatSlide'] as const).some((axis) => {
    const list = chances[axis] ?? []
    const at = list.findIndex(({ label }) => label === shown[axis])
    return at >= 0 && (at === 0 || at === list.length - 1 || list[at].chance < MIN_CHANCE)
  })
}
