'use client'
import { Alert, Button, Checkbox, Input } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import '@/interface/kit/antd/checkbox.generated.css'
import { useState, type FormEvent } from 'react'
import { ACCOUNT_TEXT } from '@/core/messages/studio/accounts'
import styles from './signIn.module.css'

/** After the password: a code of the authenticator, or one of the recovery codes. */
export function SecondStep({ back }: Readonly<{ back: () => void }>) {
  const [code, setCode] = useState('')
  const [byRecovery, setByRecovery] = useState(false)
  const [trustDevice, setTrustDevice] = useState(false)
  const [trouble, setTrouble] = useState('')
  const [busy, setBusy] = useState(false)

  async function prove(event: FormEvent) {
    event.preventDefault()
    setBusy(true)
    setTrouble('')
    try {
      const response = await fetch(`/api/auth/two-factor/${byRecovery ? 'verify-backup-code' : 'verify-totp'}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ code: byRecovery ? code.trim() : code.replaceAll(' ', ''), trustDevice }),
      })
      if (response.ok) return window.location.replace('/today')
      const { code: why } = (await response.json().catch(() => ({}))) as { code?: string }
      setTrouble(troubleOf(why, byRecovery))
    } catch {
      setTrouble('The studio’s server cannot be reached. Check the network and try again.')
    }
    setBusy(false)
  }
  return (
    <form className={styles.form} onSubmit={prove} noValidate>
      <label htmlFor="code">{byRecovery ? 'Recovery code' : 'Code of your authenticator'}</label>
      <Input
        id="code"
        size="large"
        autoFocus
        inputMode={byRecovery ? 'text' : 'numeric'}
        autoComplete="one-time-code"
        value={code}
        onChange={(event) => setCode(event.target.value)}
      />
      <Checkbox checked={trustDevice} onChange={(event) => setTrustDevice(event.target.checked)}>
        Not again on this device for a month
      </Checkbox>
      <div className={styles.trouble} aria-live="polite">
        {trouble && <Alert type="error" title={trouble} />}
      </div>
      <Button type="primary" size="large" htmlType="submit" block loading={busy} disabled={code.trim() === ''}>
        Sign in
      </Button>
      <Button type="text" size="large" block onClick={() => setByRecovery(!byRecovery)}>
        {byRecovery ? 'Use the authenticator' : 'Authenticator lost? Use a recovery code'}
      </Button>
      <Button type="text" size="large" block onClick={back}>
        Back
      </Button>
    </form>
  )
}

function troubleOf(code: string | undefined, byRecovery: boolean): string {
  if (code === 'INVALID_TWO_FACTOR_COOKIE') return 'This took too long. Go back and type the password again.'
  if (code === 'ACCOUNT_TEMPORARILY_LOCKED' || code === 'TOO_MANY_ATTEMPTS_REQUEST_NEW_CODE')
    return ACCOUNT_TEXT.tooManyTries
  return byRecovery ? 'This recovery code does not fit, or was used already.' : ACCOUNT_TEXT.wrongTotp
}
