'use client'
import { useState, type FormEvent, type ReactNode } from 'react'
import { ABOUT_NAME, AFTERWARDS, CANNOT_FIT } from '@/core/messages/setups/alone'
import { asSentence } from '@/core/messages/words/phrases'
import type { Evidence } from '@/core/riders/evidence/registry'
import type { AloneStep } from '@/core/setups/alone/alone'
import { codeCommand } from '../../commands/command'
import type { AloneScale } from './aloneScale'
import { AloneNumbers } from './AloneNumbers'
import styles from './alone.module.css'

type Props = Readonly<{
  code: string
  step: Extract<AloneStep, { kind: 'end' }>
  scales: readonly AloneScale[]
  rows: readonly Evidence[]
  /** The name they left, where they did. */
  left: string | null
  onLeft: (name: string) => void
  picture: ReactNode
}>

/** What this phone calls itself where it leaves something; random, and of no other use. */
function deviceId(): string {
  const made = crypto.randomUUID()
  try {
    const stored = localStorage.getItem('alone-device')
    if (stored) return stored
    localStorage.setItem('alone-device', made)
  } catch {
    // Counted as another phone then.
  }
  return made
}

/** The card at the end: four numbers, not looked at; and a name for who wants an instructor to look. */
export function AloneEnd({ code, step, scales, rows, left, onLeft, picture }: Props) {
  return (
    <>
      <p className={styles.tag}>Set alone, not looked at</p>
      <h2>Your numbers on this bike</h2>
      <AloneNumbers scales={scales} marks={step.marks} />
      {step.cannotFit && <p className={styles.stop}>{CANNOT_FIT}</p>}
      <p>{AFTERWARDS}</p>
      {left ? (
        <p className={styles.left} role="status">
          {left} is in the instructor’s list. They look at you first.
        </p>
      ) : (
        <LeaveName code={code} rows={rows} onLeft={onLeft} />
      )}
      {picture}
    </>
  )
}

function LeaveName({ code, rows, onLeft }: Pick<Props, 'code' | 'rows' | 'onLeft'>) {
  const [id] = useState(() => crypto.randomUUID())
  const [name, setName] = useState('')
  const [agrees, setAgrees] = useState(false)
  const [busy, setBusy] = useState(false)
  const [trouble, setTrouble] = useState('')
  async function send(event: FormEvent) {
    event.preventDefault()
    setBusy(true)
    setTrouble('')
    try {
      // Rows share the marks they were taken at; sent as they are, the framework would send references.
      const plain = JSON.parse(JSON.stringify(rows)) as Evidence[]
      const sent = { name, device: deviceId(), rows: plain, agrees: true } as const
      const answer = await codeCommand(code, 'alone.leave', sent, id)
      if (answer.outcome === 'refused') setTrouble(`Not sent: ${answer.say}.`)
      else onLeft(name.trim())
    } catch {
      setTrouble('Not sent: the studio’s server cannot be reached. Your numbers stay on this phone; try again.')
    } finally {
      setBusy(false)
    }
  }
  return (
    <form className={styles.leave} onSubmit={send}>
      <h3>An instructor’s look</h3>
      <p>{ABOUT_NAME}</p>
      <label htmlFor="own-name">Your name</label>
      <input
        id="own-name"
        value={name}
        maxLength={60}
        autoComplete="given-name"
        onChange={(event) => setName(event.target.value)}
      />
      <label className={styles.agree}>
        <input type="checkbox" checked={agrees} onChange={(event) => setAgrees(event.target.checked)} />I agree to that.
      </label>
      <div aria-live="polite">{trouble && <p className={styles.stop}>{asSentence(trouble)}</p>}</div>
      <button type="submit" className={styles.go} disabled={busy || !agrees || name.trim() === ''}>
        {busy ? 'Sending …' : 'Ask for a look'}
      </button>
    </form>
  )
}
