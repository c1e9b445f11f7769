import type { School } from '@/core/base/school/school'
import { NumberField } from '../kit/NumberField'
import styles from './studioView.module.css'

const WINDOWS = [
  { value: '25 35', label: '25 to 35°', means: 'The usual window; a slight bend.' },
  { value: '30 35', label: '30 to 35°', means: 'The stricter school, which rejects 20 to 25° as a target.' },
] as const

/** One way to do it, with what it means and the marks it would set. */
export function Option({
  chosen,
  name,
  means,
  marks,
  onChoose,
}: {
  chosen: boolean
  name: string
  means: string
  marks: string
  onChoose: () => void
}) {
  return (
    <button type="button" role="radio" aria-checked={chosen} className={styles.option} onClick={onChoose}>
      <b>{name}</b>
      <span>{means}</span>
      {marks !== '' && <em>{marks}</em>}
    </button>
  )
}

type Props = Readonly<{ school: School; choose: (change: Partial<School>) => void }>

/** The bend of the knee the studio goes by: a usual window, or its own. */
export function KneeWindow({ school, choose }: Props) {
  return (
    <section className={styles.choice} aria-label="Knee window">
      <div>
        <h2>Knee window</h2>
        <p className={styles.quiet}>Which bend at the bottom is wanted?</p>
      </div>
      <div className={styles.options} role="radiogroup" aria-label="Knee window">
        {WINDOWS.map(({ value, label, means }) => (
          <Option
            key={value}
            chosen={school.kneeWindowDeg.join(' ') === value}
            name={label}
            means={means}
            marks=""
            onChoose={() => choose({ kneeWindowDeg: value.split(' ').map(Number) as [number, number] })}
          />
        ))}
        <div className={styles.own}>
          <span>Own</span>
          {([0, 1] as const).map((end) => (
            <NumberField
              key={end}
              aria-label={end === 0 ? 'Least bend, degrees' : 'Most bend, degrees'}
              min={10}
              max={60}
              unit="°"
              value={school.kneeWindowDeg[end]}
              onChange={(deg) => {
                const window: [number, number] = [...school.kneeWindowDeg]
                window[end] = deg
                choose({ kneeWindowDeg: window })
              }}
            />
          ))}
        </div>
      </div>
    </section>
  )
}
