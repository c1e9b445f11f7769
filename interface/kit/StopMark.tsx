import styles from './stopMark.module.css'

/** Mark of an open red flag beside a name, by word and shape. */
export function StopMark({ why }: { why: string }) {
  return (
    <span className={styles.mark} title={why}>
      stop
    </span>
  )
}

/** An open red flag over a page, with what to do and where it is answered. */
export function StopBanner({
  why,
  referral,
  answer,
}: Readonly<{ why: string; referral: string; answer?: Readonly<{ href: string; name: string }> }>) {
  return (
    <section className={styles.banner} aria-label="Stop" role="alert">
      <p>
        <StopMark why={why} />
        <b>{why.charAt(0).toUpperCase() + why.slice(1)}.</b> {referral}
      </p>
      {answer && <a href={answer.href}>{answer.name}</a>}
    </section>
  )
}
