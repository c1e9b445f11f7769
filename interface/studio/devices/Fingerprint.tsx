import styles from './devices.module.css'

/** The print of the authority in groups, to be compared with the one on a manager's screen. */
export function Fingerprint({ text }: Readonly<{ text: string }>) {
  const groups = text.replaceAll(':', '').match(/.{1,4}/g) ?? []
  return (
    <figure className={styles.print}>
      <figcaption>Its print. A certificate with another print is not this studio’s: do not install it.</figcaption>
      <code>{groups.join(' ')}</code>
    </figure>
  )
}
