'use client'
import { Alert, Button, Input } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import { useState } from 'react'
import { PASSKEY_TEXT } from '@/core/messages/studio/accounts'
import { LightSwitch } from '../../kit/theme/LightSwitch'
import { Mark } from '../../kit/Mark'
import { SecondStep } from './SecondStep'
import { signInByPasskey, useHasPasskeys } from './passkeyClient'
import styles from './signIn.module.css'

const REFUSED: Record<number, string> = {
  401: 'Name and password do not go together. What you typed is still here.',
  403: 'This is not the studio’s own address. Open the one that was printed at the start.',
}

function formatSignInRefusal({ status, headers }: Response): string {
  if (status === 429) return formatWait(Number(headers.get('retry-after') ?? 60))
  return (
    REFUSED[status] ?? (status < 500 ? REFUSED[401] : 'The studio’s server had a fault. Nothing was lost; try again.')
  )
}

/** "Too many tries in a row. Wait 5 minutes, then try again." */
function formatWait(seconds: number): string {
  const minutes = Math.ceil(seconds / 60)
  return `Too many tries in a row. Wait ${minutes <= 1 ? 'a minute' : `${minutes} minutes`}, then try again.`
}

/** `back`: to the names of a shared tablet; null on a device of one person. */
export function SignIn({ back }: Readonly<{ back: (() => void) | null }>) {
  const [username, setUsername] = useState('')
  const [password, setPassword] = useState('')
  const [trouble, setTrouble] = useState('')
  const [busy, setBusy] = useState(false)
  /** The password fits, and a second factor is to follow. */
  const hasPasskeys = useHasPasskeys()
  const [isSecond, setSecond] = useState(false)

  async function byPasskey() {
    setBusy(true)
    const outcome = await signInByPasskey().catch(() => 'unreachable' as const)
    setBusy(false)
    if (outcome === 'done') return window.location.replace('/today')
    setTrouble(outcome === 'givenUp' ? '' : PASSKEY_TEXT[outcome])
  }
  async function signIn(event: React.FormEvent) {
    event.preventDefault()
    if (!username.trim() || !password) return setTrouble('Type your name and your password.')
    setBusy(true)
    setTrouble('')
    try {
      const response = await fetch('/api/auth/sign-in/username', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ username: username.trim(), password }),
      })
      if (response.ok) {
        const { twoFactorRedirect } = (await response.json()) as { twoFactorRedirect?: boolean }
        setBusy(false)
        if (twoFactorRedirect) return setSecond(true)
        // A new document: nothing of who was here before stays in the page's memory.
        window.location.replace('/today')
        return
      }
      setTrouble(formatSignInRefusal(response))
    } catch {
      setTrouble('The studio’s server cannot be reached. Check the network and try again.')
    }
    setBusy(false)
  }

  return (
    <main className={styles.page}>
      <div className={styles.light}>
        <LightSwitch />
      </div>
      <section className={styles.words}>
        <Mark size={72} />
        <h1>Yielding Saddle</h1>
        <p>Four numbers, found once and kept. What you saw in class, waiting when the rider comes back.</p>
      </section>
      {isSecond ? (
        <SecondStep back={() => setSecond(false)} />
      ) : (
        <form className={styles.form} onSubmit={signIn} noValidate>
          <label htmlFor="username">Name</label>
          <Input
            id="username"
            size="large"
            autoComplete="username"
            autoCapitalize="none"
            value={username}
            onChange={(e) => setUsername(e.target.value)}
            autoFocus
          />
          <label htmlFor="password">Password</label>
          <Input.Password
            id="password"
            size="large"
            autoComplete="current-password"
            value={password}
            onChange={(e) => setPassword(e.target.value)}
          />
          <div className={styles.trouble} aria-live="polite">
            {trouble && <Alert type="error" title={trouble} />}
          </div>
          <Button type="primary" size="large" htmlType="submit" block loading={busy}>
            Sign in
          </Button>
          {hasPasskeys && (
            <Button size="large" block disabled={busy} onClick={() => void byPasskey()}>
              With a passkey
            </Button>
          )}
          {back && (
            <Button type="text" size="large" block onClick={back}>
              By PIN instead
            </Button>
          )}
        </form>
      )}
    </main>
  )
}
