'use client'
import { Alert, App, Button, Input } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import { useRouter } from 'next/navigation'
import { useState, type FormEvent } from 'react'
import { useCopy } from '../../kit/useCopy'
import { useHasPasskeys } from '../signIn/passkeyClient'
import styles from './ownAccount.module.css'
import { useAccountForm } from './useAccountForm'

type Made = Readonly<{ qr?: string; secret?: string; codes: readonly string[] }>

type Props = Readonly<{
  isOn: boolean
  isRequired: boolean
  /** This session came by a passkey, which is two factors in one. */
  isProven: boolean
  passkeys: 'possible' | 'added' | 'none'
}>

/** Before the second factor that a role must have. */
const REQUIRED_TEXT: Readonly<Record<Props['passkeys'], string>> = {
  possible: 'Your studio requires it of your role: turn it on, or add a passkey of this device. Then the studio opens.',
  added: 'Your studio requires it of your role: sign out, and sign in with your passkey. Then the studio opens.',
  none: 'Your studio requires it of your role. Turn it on, then the studio opens.',
}

/** The second factor of one's own account: on with an authenticator, recovery codes, off. */
export function SecondFactor({ isOn, isRequired, isProven, passkeys }: Props) {
  const { message } = App.useApp()
  const isPossible = useHasPasskeys()
  const router = useRouter()
  const [password, setPassword] = useState('')
  const [code, setCode] = useState('')
  const [made, setMade] = useState<Made | null>(null)
  const { request, trouble, busy } = useAccountForm('/api/accounts/second-factor')
  const step = async (name: 'begin' | 'codes' | 'end') => {
    const answer = await request<Made>({ step: name, secret: password })
    if (!answer) return
    setPassword('')
    if (name !== 'end') return setMade(answer)
    message.success('The second factor is off.', 3)
    router.refresh()
  }
  async function confirm(event: FormEvent) {
    event.preventDefault()
    if (!(await request({ step: 'confirm', secret: code }))) return
    setMade(null)
    setCode('')
    message.success('From now on signing in takes a code as well.', 4)
    if (isRequired) window.location.replace('/today')
    else router.refresh()
  }
  return (
    <section aria-label="Second factor" className={styles.form}>
      <h2>Second factor</h2>
      {isRequired && !isOn && !isProven && (
        <Alert type="warning" title={REQUIRED_TEXT[isPossible ? passkeys : 'none']} />
      )}
      {made ? (
        <>
          {made.qr && <Authenticator qr={made.qr} secret={made.secret ?? ''} />}
          <RecoveryCodes codes={made.codes} />
          {made.qr ? (
            <form className={styles.form} onSubmit={confirm} noValidate>
              <label htmlFor="code">Code it shows now</label>
              <Input
                id="code"
                size="large"
                inputMode="numeric"
                autoComplete="one-time-code"
                value={code}
                onChange={(event) => setCode(event.target.value)}
              />
              <Trouble text={trouble} />
              <Button type="primary" size="large" htmlType="submit" loading={busy} disabled={code.trim() === ''}>
                Turn it on
              </Button>
            </form>
          ) : (
            <Button size="large" onClick={() => setMade(null)}>
              I have them
            </Button>
          )}
        </>
      ) : (
        <>
          <p className={styles.quiet}>
            {isOn
              ? 'On: signing in takes a code of your authenticator, or a recovery code.'
              : 'A code that an authenticator on your phone shows, besides the password.'}
          </p>
          <label htmlFor="second-password">Password</label>
          <Input.Password
            id="second-password"
            size="large"
            autoComplete="current-password"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
          <Trouble text={trouble} />
          <div className={styles.does}>
            {isOn ? (
              <>
                <Button size="large" loading={busy} disabled={!password} onClick={() => void step('codes')}>
                  New recovery codes
                </Button>
                {!isRequired && (
                  <Button size="large" danger loading={busy} disabled={!password} onClick={() => void step('end')}>
                    Turn it off
                  </Button>
                )}
              </>
            ) : (
              <Button
                size="large"
                type={isRequired ? 'primary' : 'default'}
                loading={busy}
                disabled={!password}
                onClick={() => void step('begin')}
              >
                Set it up
              </Button>
            )}
          </div>
        </>
      )}
    </section>
  )
}

function Authenticator({ qr, secret }: Readonly<{ qr: string; secret: string }>) {
  return (
    <div className={styles.authenticator}>
      {/* eslint-disable-next-line @next/next/no-img-element -- drawn on the server, nothing to fetch */}
      <img src={`data:image/svg+xml;utf8,${encodeURIComponent(qr)}`} alt="QR code for the authenticator" />
      <p className={styles.quiet}>
        Scan it with an authenticator, or type the key:{' '}
        <b className={styles.key}>{secret.match(/.{1,4}/g)?.join(' ')}</b>
      </p>
    </div>
  )
}

/** Shown once: each opens the account one time where the authenticator is lost. */
function RecoveryCodes({ codes }: Readonly<{ codes: readonly string[] }>) {
  const copy = useCopy()
  return (
    <div>
      <p>
        <b>Recovery codes.</b> Keep them away from the phone: each lets you in once without it. They are shown only now.
      </p>
      <ul className={styles.codes} aria-label="Recovery codes">
        {codes.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <Button size="large" onClick={() => copy(codes.join('\n'))}>
        Copy the codes
      </Button>
    </div>
  )
}

const Trouble = ({ text }: Readonly<{ text: string }>) => (
  <div aria-live="polite">{text && <Alert type="error" title={text} />}</div>
)
