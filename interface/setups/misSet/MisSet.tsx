import { Button } from 'antd'
import { formatLabel, formatMarks } from '@/core/messages/words/labels'
import { capitalized, formatNaturalFrequency } from '@/core/messages/words/phrases'
import type { MisSetResponse } from '@/core/operations/requests/misSet'
import styles from '../steps/stepPanel.module.css'
import own from './misSet.module.css'
import type { StepPanelProps } from '../steps/stepPanelProps'

/** Less likely ones are not worth the walk. */
const MIN_CHANCE = 0.02

type Props = StepPanelProps & Readonly<{ misSet: MisSetResponse; suspect: boolean }>

/** What may be mis-set at this bike, how likely each is, and one tap to confirm it. */
export function MisSet({
  misSet,
  suspect,
  context: { bikeType, bikeId },
  actions: { onTakenAt, onStep, onCheck },
}: Props) {
  return (
    <details className={styles.why}>
      <summary className={suspect ? own.suspect : undefined}>Mis-set?</summary>
      <ul className={own.causes}>
        {misSet.causes
          .filter(({ chance }) => chance >= MIN_CHANCE)
          .map((cause) => (
            <li key={cause.say}>
              <span className={own.chance} aria-hidden>
                <i style={{ width: `${Math.round(100 * cause.chance)}%` }} />
              </span>
              <span className={own.say}>
                {capitalized(cause.say)} <span className={own.often}>{formatNaturalFrequency(cause.chance)}</span>
              </span>
              {'truly' in cause && (
                <Button
                  size="large"
                  onClick={() => onTakenAt(cause.code === 'offByOne' ? { [cause.axis]: cause.truly } : cause.truly)}
                >
                  It stood at{' '}
                  {cause.code === 'offByOne'
                    ? formatLabel(bikeType, cause.axis, cause.truly)
                    : formatMarks(bikeType, cause.truly)}
                </Button>
              )}
              {cause.code === 'postSlipped' && (
                <Button size="large" href={`/bikes/${bikeId}`}>
                  Take the tape
                </Button>
              )}
              {cause.code === 'otherShoe' && (
                <Button
                  size="large"
                  onClick={() => {
                    onStep('talk')
                    onCheck('rider')
                  }}
                >
                  Ask for the shoes
                </Button>
              )}
            </li>
          ))}
      </ul>
    </details>
  )
}
