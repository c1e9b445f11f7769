import styles from './choiceGroup.module.css'

export type Choice<V extends string> = Readonly<{ value: V; name: string; hint?: string }>

/** One question with its answers as large buttons; the one given stays pressed, another tap corrects it. */
export function ChoiceGroup<V extends string>({
  title,
  choices,
  given,
  onChoose,
}: {
  title: string
  choices: readonly Choice<V>[]
  given?: V
  onChoose: (value: V) => void
}) {
  return (
    <div className={styles.group} style={{ flexGrow: choices.length }} role="group" aria-label={title}>
      <p className={styles.title}>{title}</p>
      <div className={styles.row}>
        {choices.map(({ value, name, hint }) => (
          <button
            key={value}
            type="button"
            className={styles.choice}
            aria-pressed={given === value}
            onClick={() => onChoose(value)}
          >
            <b>{name}</b>
            {hint && <span>{hint}</span>}
          </button>
        ))}
      </div>
    </div>
  )
}
