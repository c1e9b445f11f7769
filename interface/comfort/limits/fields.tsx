import type { ReactNode } from 'react'
import styles from './limits.module.css'

/** A field under its title. */
export function Field({ title, children }: Readonly<{ title: string; children: ReactNode }>) {
  return (
    <label className={styles.field}>
      {title}
      {children}
    </label>
  )
}

/** Some words, of which one is chosen. */
export function Choices<T extends string>({
  name,
  of,
  named,
  chosen,
  choose,
}: Readonly<{
  name: string
  of: readonly T[]
  named: Readonly<Record<T, string>>
  chosen: T | undefined
  choose: (one: T) => void
}>) {
  return (
    <div className={styles.choices} role="group" aria-label={name}>
      {of.map((one) => (
        <button key={one} type="button" aria-pressed={one === chosen} onClick={() => choose(one)}>
          {named[one]}
        </button>
      ))}
    </div>
  )
}
