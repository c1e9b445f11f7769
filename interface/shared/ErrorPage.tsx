'use client'
import { Button } from 'antd'
import styles from './errorPage.module.css'

/** Something failed: what happened, that nothing was lost, and the way on. */
export function ErrorPage({ title, text, retry }: { title: string; text: string; retry?: () => void }) {
  return (
    <section className={styles.page}>
      <h1>{title}</h1>
      <p>{text}</p>
      <div className={styles.ways}>
        {retry && (
          <Button type="primary" size="large" onClick={retry}>
            Try again
          </Button>
        )}
        <Button type={retry ? 'default' : 'primary'} size="large" href="/members">
          To the members
        </Button>
      </div>
    </section>
  )
}
