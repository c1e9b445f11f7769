'use client'
import { Alert, App, Button, Input } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import { useRouter } from 'next/navigation'
import { useState, type FormEvent } from 'react'
import { formatDay } from '@/core/messages/words/dates'
import { DEVICE_NAME, deviceKind } from '@/core/messages/studio/trust'
import type { OwnPasskey } from '@/server/platform/accounts/passkeys'
import type { OwnSession } from '@/server/platform/accounts/ownSessions'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { NewPassword } from './AccountFields'
import styles from './ownAccount.module.css'
import { OwnPasskeys } from './OwnPasskeys'
import { OwnPin } from './OwnPin'
import { SecondFactor } from './SecondFactor'
import { useAccountForm } from './useAccountForm'

type Props = Readonly<{
  name: string
  hasEye: boolean
  sessions: readonly OwnSession[]
  /** The studio's clock. */
  timeZone: string
  /** `isProven`: this session came by a passkey, which is two factors in one. */
  secondFactor: Readonly<{ isOn: boolean; isRequired: boolean; isProven: boolean }>
  hasPin: boolean
  /** Null on a shared tablet, which makes none. */
  passkeys: readonly OwnPasskey[] | null
}>

/** One's own account: the password, and where one is signed in. */
export function OwnAccount({ name, hasEye, sessions, timeZone, secondFactor, hasPin, passkeys }: Props) {
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
  const isDue = secondFactor.isRequired && !secondFactor.isOn && !secondFactor.isProven
  const second = (
    <SecondFactor {...secondFactor} passkeys={!passkeys ? 'none' : passkeys.length > 0 ? 'added' : 'possible'} />
  )
  // What the studio waits for stands first.
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
      <div className={styles.columns}>
        {isDue && second}
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
        {!isDue && second}
        {passkeys && <OwnPasskeys passkeys={passkeys} timeZone={timeZone} />}
        <OwnPin isSet={hasPin} />
        <Sessions sessions={sessions} timeZone={timeZone} />
      </div>
    </article>
  )
}

/** Where somebody is signed in, each with a way out. */
function Sessions({ sessions, timeZone }: Pick<Props, 'sessions' | 'timeZone'>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const end = async (sessionId: string) => {
    if (await act(() => command('people.endOwnSession', { sessionId }))) router.refresh()
  }
  return (
    <section aria-label="Signed in" className={styles.sessions}>
      <h2>Signed in</h2>
      <ul>
        {sessions.map(({ id, userAgent, since, isThis }) => (
          <li key={id}>
            <span>
              <b>{DEVICE_NAME[deviceKind(userAgent, false)]}</b>
              <small>
                {isThis ? 'this device' : 'another device'}, since {formatDay(since, timeZone)}
              </small>
            </span>
            {!isThis && (
              <Button size="large" loading={busy} onClick={() => void end(id)}>
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
