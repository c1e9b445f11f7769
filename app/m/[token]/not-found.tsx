import styles from '@/interface/shared/errorPage.module.css'

/** What every link says that opens nothing: unknown, taken back, too old, or asked too often. */
export default function NotFound() {
  return (
    <main className={styles.page}>
      <h1>This link has ended</h1>
      <p>Links to members’ numbers end after a year, or when the studio takes them back. Ask there for a new one.</p>
    </main>
  )
}
