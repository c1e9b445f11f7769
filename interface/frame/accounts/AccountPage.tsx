'use client'
import { Alert, Button } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import type { FormEvent, ReactNode } from 'react'
import { LightSwitch } from '../../kit/theme/LightSwitch'
import { Mark } from '../../kit/Mark'
import styles from '../signIn/signIn.module.css'

type Props = Readonly<{
  title: string
  lead: ReactNode
  /** Null where there is nothing to send. */
  form: Readonly<{ send: () => void; button: string; busy: boolean; trouble: string }> | null
  children?: ReactNode
}>

/** A page before anybody is signed in: what it is about, and a form. */
export function AccountPage({ title, lead, form, children }: Props) {
  function submit(event: FormEvent) {
    event.preventDefault()
    form?.send()
  }
  return (
    <main className={styles.page}>
      <div className={styles.light}>
        <LightSwitch />
      </div>
      <section className={styles.words}>
        <Mark size={72} />
        <h1>{title}</h1>
        <p>{lead}</p>
      </section>
      {form ? (
        <form className={styles.form} onSubmit={submit} noValidate>
          {children}
          <div className={styles.trouble} aria-live="polite">
            {form.trouble && <Alert type="error" title={form.trouble} />}
          </div>
          <Button type="primary" size="large" htmlType="submit" block loading={form.busy}>
            {form.button}
          </Button>
        </form>
      ) : (
        <div className={styles.form}>{children}</div>
      )}
    </main>
  )
}
