'use client'
import { keepOwnLink, useOwnLink } from '../../kit/ownLink'
import styles from './alone.module.css'

/** On a phone that opened a member's own page before: the way to their numbers on this machine. */
export function OwnLink({ code }: Readonly<{ code: string }>) {
  const token = useOwnLink()
  if (!token) return null
  return (
    <section className={styles.own} aria-label="Your own page">
      <a className={styles.go} href={`/m/${token}/bike/${code}`}>
        Your numbers on this bike
      </a>
      <button type="button" className={styles.quietButton} onClick={() => keepOwnLink(null)}>
        Not you? Forget the link on this phone
      </button>
    </section>
  )
}
