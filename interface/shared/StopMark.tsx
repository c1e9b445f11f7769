import styles from './stopMark.module.css'

/** An open red flag: the mark beside a name. The word says it, the shape repeats it. */
export function StopMark({ why }: { why: string }) {
  return (
    <span className={styles.mark} title={why}>
      stop
    </span>
  )
}

/** An open red flag over a page, with what to do and where it is answered. */
export function StopBanner({ why, referral, href }: Readonly<{ why: string; referral: string; href?: string }>) {
  return (
    <section className={styles.banner} aria-label="Stop" role="alert">
      <p>
        <StopMark why={why} />
        <b>{why.charAt(0).toUpperCase() + why.slice(1)}.</b> {referral}
      </p>
      {href && <a href={href}>Open the complaint</a>}
    </section>
  )
}
