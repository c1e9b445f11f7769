'use client'
import styles from './errorPage.module.css'

/** Something failed: what happened, that nothing was lost, and the way on. */
export function ErrorPage({ title, text, retry }: { title: string; text: string; retry?: () => void }) {
  return (
    <section className={styles.page}>
      <h1>{title}</h1>
      <p>{text}</p>
      <div className={styles.ways}>
        {retry && (
          <button type="button" className={styles.first} onClick={retry}>
            Try again
          </button>
        )}
        {/* A full page load: the failed state is gone. */}
        <a className={retry ? styles.second : styles.first} href="/members">
          To the members
        </a>
      </div>
    </section>
  )
}
