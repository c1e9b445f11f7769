import styles from './rider.module.css'

export type NoteSummary = Readonly<{
  id: string
  sign: string
  seen: string
  side: 'left' | 'right' | 'both' | null
  when: string
  by: string
  bike: number
  /** The cue; empty for what was felt. */
  cue: string
  /** Whether it had changed at a second look. */
  held: boolean | null
}>

/** Notes on the rider in class, each with its cue. */
export function SeenInClass({
  notes,
  trained,
}: {
  notes: readonly NoteSummary[]
  /** Signs that exercises run for. */
  trained: readonly string[]
}) {
  return (
    <section className={styles.part} id="seen">
      <h2>Seen in class</h2>
      {notes.length === 0 ? (
        <p className={styles.quiet} data-empty>
          Nothing noted so far. Notes are made during a class, by tapping the bike.
        </p>
      ) : (
        <ul className={styles.notes}>
          {notes.map((note) => (
            <li key={note.id}>
              <p className={styles.seen}>
                {note.seen}
                {note.side && <span> {note.side === 'both' ? 'both sides' : note.side}</span>}
              </p>
              {note.cue && <p className={styles.cue}>Say: “{note.cue}”</p>}
              <p className={styles.quiet}>
                {note.when}, bike {note.bike}, {note.by}
                {note.held !== null &&
                  (note.held ? ', changed at a second look' : ', had not changed at a second look')}
                {trained.includes(note.sign) && ', exercises given'}
              </p>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
