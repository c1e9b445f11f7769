import { useState } from 'react'
import styles from './reasons.module.css'
import type { CauseSummary } from './reasonsPage'

/** Likely causes, the first one open. `stopped`: the rider is referred; no remedy is shown. */
export function Causes({ causes, stopped }: { causes: readonly CauseSummary[]; stopped: boolean }) {
  const [open, setOpen] = useState<string | null>(causes[0].cause)
  return (
    <section className={styles.part} aria-label="What may be behind it">
      <h2>What may be behind it</h2>
      <ul className={styles.causes}>
        {causes.map((one) => (
          <li key={one.cause}>
            <button
              type="button"
              aria-expanded={open === one.cause}
              onClick={() => setOpen(open === one.cause ? null : one.cause)}
            >
              <b>{one.name}</b>
              <span className={styles.bar} aria-hidden="true">
                <i style={{ width: `${Math.max(2, 100 * one.share)}%` }} />
              </span>
              <small>{one.chance}</small>
            </button>
            {open === one.cause && (
              <div className={styles.why}>
                {one.for.length > 0 && (
                  <ul aria-label="For it">
                    {one.for.map((line, i) => (
                      <li key={i} className={styles.pro}>
                        {line}
                      </li>
                    ))}
                  </ul>
                )}
                {one.against.length > 0 && (
                  <ul aria-label="Against it">
                    {one.against.map((line, i) => (
                      <li key={i} className={styles.contra}>
                        {line}
                      </li>
                    ))}
                  </ul>
                )}
                {!stopped && <p className={styles.quiet}>Where it is the cause: {one.remedy.toLowerCase()}.</p>}
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
