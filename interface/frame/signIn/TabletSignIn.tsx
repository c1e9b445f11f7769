'use client'
import { Alert, Button } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import { useState } from 'react'
import { formatPinWait, PIN_TEXT } from '@/core/messages/studio/tablets'
import { LightSwitch } from '../../kit/theme/LightSwitch'
import { Mark } from '../../kit/Mark'
import { PinPad } from './PinPad'
import styles from './tabletSignIn.module.css'

type Person = Readonly<{ id: string; name: string }>
type Props = Readonly<{
  /** The studio and what the tablet is called. */
  studio: string
  tablet: string
  people: readonly Person[]
  /** The page to open then. */
  to: string
  withPassword: () => void
}>

/** A shared tablet while nobody is signed in: tap a name, type six digits. */
export function TabletSignIn({ studio, tablet, people, to, withPassword }: Props) {
  const [chosen, setChosen] = useState<Person | null>(null)
  const [trouble, setTrouble] = useState('')
  const [busy, setBusy] = useState(false)
  async function open(pin: string): Promise<void> {
    setBusy(true)
    setTrouble('')
    try {
      const response = await fetch('/api/auth/sign-in/pin', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ userId: chosen?.id, pin }),
      })
      // A new document: nothing of who was here before stays in the page's memory.
      if (response.ok) return window.location.replace(to)
      setTrouble(troubleOf(response))
    } catch {
      setTrouble(PIN_TEXT.unreachable)
    }
    setBusy(false)
  }
  return (
    <main className={styles.page}>
      <header className={styles.head}>
        <Mark />
        <h1>{studio}</h1>
        <span>{tablet}</span>
        <LightSwitch />
      </header>
      {chosen ? (
        <section className={styles.one} aria-label={chosen.name}>
          <div className={styles.who}>
            <h2>{chosen.name}</h2>
            <div className={styles.trouble} aria-live="polite">
              {trouble && <Alert type="error" title={trouble} />}
            </div>
            <Button
              size="large"
              onClick={() => {
                setChosen(null)
                setTrouble('')
              }}
            >
              Somebody else
            </Button>
          </div>
          <PinPad key={chosen.id} busy={busy} onPin={open} />
        </section>
      ) : (
        <section className={styles.everybody} aria-label="Who is here?">
          <h2>Who is here?</h2>
          {people.length === 0 && (
            <p className={styles.quiet}>
              Nobody has a PIN yet. Sign in with your password, and choose one under your name.
            </p>
          )}
          <ul className={styles.people}>
            {people.map((one) => (
              <li key={one.id}>
                <button type="button" onClick={() => setChosen(one)}>
                  {one.name}
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <footer className={styles.foot}>
        <Button type="text" size="large" onClick={withPassword}>
          With a password instead
        </Button>
      </footer>
    </main>
  )
}

function troubleOf({ status, headers }: Response): string {
  if (status === 429) return formatPinWait(Number(headers.get('retry-after') ?? 60))
  if (status === 403) return PIN_TEXT.notPaired
  return status < 500 ? PIN_TEXT.wrong : PIN_TEXT.fault
}
