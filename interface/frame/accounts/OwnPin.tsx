'use client'
import { Alert, App, Button, Input } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import { useRouter } from 'next/navigation'
import { useState, type FormEvent } from 'react'
import styles from './ownAccount.module.css'
import { useAccountForm } from './useAccountForm'

/** The PIN for shared tablets: chosen, changed or removed by password. */
export function OwnPin({ isSet }: Readonly<{ isSet: boolean }>) {
  const { message } = App.useApp()
  const router = useRouter()
  const [pin, setPin] = useState('')
  const [password, setPassword] = useState('')
  const { send, trouble, busy } = useAccountForm('/api/accounts/pin')
  async function save(chosen: string) {
    if (!(await send({ password, pin: chosen }))) return
    setPin('')
    setPassword('')
    message.success(chosen ? 'The PIN is set. Shared tablets show your name now.' : 'The PIN is removed.', 4)
    router.refresh()
  }
  function submit(event: FormEvent) {
    event.preventDefault()
    void save(pin)
  }
  return (
    <form className={styles.form} onSubmit={submit} noValidate aria-label="PIN">
      <h2>PIN for shared tablets</h2>
      <p className={styles.quiet}>
        {isSet
          ? 'Set: on a tablet of the hall you tap your name and type it.'
          : 'Six digits that open a tablet of the hall, instead of the password.'}
      </p>
      <label htmlFor="pin">New PIN</label>
      <Input.Password
        id="pin"
        size="large"
        inputMode="numeric"
        autoComplete="off"
        maxLength={6}
        value={pin}
        onChange={(event) => setPin(event.target.value.replaceAll(/\D/g, ''))}
      />
      <label htmlFor="pin-password">Password</label>
      <Input.Password
        id="pin-password"
        size="large"
        autoComplete="current-password"
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      <div aria-live="polite">{trouble && <Alert type="error" title={trouble} />}</div>
      <div className={styles.does}>
        <Button size="large" htmlType="submit" loading={busy} disabled={!password || pin.length < 6}>
          {isSet ? 'Change the PIN' : 'Set the PIN'}
        </Button>
        {isSet && (
          <Button size="large" danger loading={busy} disabled={!password} onClick={() => void save('')}>
            Remove it
          </Button>
        )}
      </div>
    </form>
  )
}
