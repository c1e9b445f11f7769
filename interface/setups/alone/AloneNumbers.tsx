import type { Marks } from '@/core/base/conventions'
import type { AloneScale } from './aloneScale'
import styles from './alone.module.css'

type Props = Readonly<{
  scales: readonly AloneScale[]
  marks: Marks
  /** Where they stand now, for a change. */
  from?: Marks
}>

/** The marks to set, large, each with how it is set behind a tap. */
export function AloneNumbers({ scales, marks, from }: Props) {
  const text = ({ marks: all }: AloneScale, label: string | undefined) =>
    all.find((mark) => mark.label === label)?.text ?? '–'
  return (
    <dl className={styles.numbers}>
      {scales.map((scale) => (
        <div key={scale.axis}>
          <dt>{scale.title}</dt>
          <dd className={styles.number}>
            {from && <small>{text(scale, from[scale.axis])} →</small>} {text(scale, marks[scale.axis])}
          </dd>
          <dd>
            <details>
              <summary>How</summary>
              {scale.how}
            </details>
          </dd>
        </div>
      ))}
    </dl>
  )
}
