'use client'
import { Alert, App, Button, Input } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import { useState, type FormEvent } from 'react'
import { NewPassword } from './AccountFields'
import styles from './ownAccount.module.css'
import { useAccountForm } from './useAccountForm'

/** One's own account: the password. */
export function OwnAccount({ name, hasEye }: Readonly<{ name: string; hasEye: boolean }>) {
  const { message } = App.useApp()
  const [present, setPresent] = useState('')
  const [next, setNext] = useState('')
  const { send, trouble, busy } = useAccountForm('/api/accounts/password')
  async function change(event: FormEvent) {
    event.preventDefault()
    if (!(await send({ present, next }))) return
    setPresent('')
    setNext('')
    message.success('The password is changed. You are signed out everywhere else.', 4)
  }
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <h1>{name}</h1>
        {hasEye && (
          <Button size="large" href="/eye">
            How your eye reads
          </Button>
        )}
      </header>
      <form className={styles.form} onSubmit={change} noValidate>
        <h2>Password</h2>
        <label htmlFor="present">Present password</label>
        <Input.Password
          id="present"
          size="large"
          autoComplete="current-password"
          value={present}
          onChange={(event) => setPresent(event.target.value)}
        />
        <NewPassword value={next} onChange={setNext} />
        <div aria-live="polite">{trouble && <Alert type="error" title={trouble} />}</div>
        <Button type="primary" size="large" htmlType="submit" loading={busy} disabled={!present || !next}>
          Change the password
        </Button>
      </form>
    </article>
  )
}
