import type { ReactNode } from 'react'
import { FeltLine } from './FeltLine'
import styles from './reasons.module.css'
import type { ComplaintSummary, ReasonsPage } from './reasonsPage'

type Props = Readonly<{
  member: Readonly<{ id: string }>
  page: ReasonsPage
  mayNote: boolean
  changed: () => void
  more: (complaint: ComplaintSummary) => void
  children: ReactNode
}>

/** What is felt, wishes that exclude each other, and earlier trials. */
export function ReasonsAside({ member, page, mayNote, changed, more, children }: Props) {
  return (
    <aside className={styles.aside}>
      {page.complaints.length > 0 && (
        <section className={styles.part} aria-label="Complaints">
          <h2>What is felt</h2>
          <ul>
            {page.complaints.map((one) => (
              <FeltLine
                key={one.id}
                memberId={member.id}
                complaint={one}
                mayNote={mayNote}
                changed={changed}
                more={() => more(one)}
              />
            ))}
          </ul>
        </section>
      )}
      {children}
      {page.conflicts.length > 0 && (
        <section className={styles.part} aria-label="Opposite wishes">
          <h2>Does not go together</h2>
          {page.conflicts.map((conflict) => (
            <p key={conflict} className={styles.conflict}>
              {conflict}
            </p>
          ))}
        </section>
      )}
      {page.past.length > 0 && (
        <section className={styles.part} aria-label="Earlier trials">
          <h2>Earlier trials</h2>
          <ul>
            {page.past.map((trial) => (
              <li key={trial.id} className={styles.past}>
                <b>{trial.text}</b>
                <span>
                  {trial.ended}; {trial.ratings}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </aside>
  )
}
