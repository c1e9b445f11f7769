import styles from '@/interface/frame/errorPage.module.css'

/** The page of a link that opens nothing: unknown, revoked, expired, or rate limited. */
export default function NotFound() {
  return (
    <main className={styles.page}>
      <h1>This link has ended</h1>
      <p>Links to members’ numbers end after a year, or when the studio takes them back. Ask there for a new one.</p>
    </main>
  )
}
