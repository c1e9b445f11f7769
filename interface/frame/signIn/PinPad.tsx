'use client'
import { ArrowLeftOutlined } from '@ant-design/icons'
import { useEffect, useState } from 'react'
import styles from './tabletSignIn.module.css'

const LENGTH = 6
const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const

/** Six digits by finger or keyboard; the sixth sends them, and the pad is empty again. */
export function PinPad({ busy, onPin }: Readonly<{ busy: boolean; onPin: (pin: string) => Promise<void> }>) {
  const [digits, setDigits] = useState('')
  const type = (digit: string) => {
    if (busy || digits.length >= LENGTH) return
    const next = digits + digit
    setDigits(next)
    if (next.length === LENGTH) void onPin(next).then(() => setDigits(''))
  }
  const back = () => !busy && setDigits(digits.slice(0, -1))
  useEffect(() => {
    const onKey = ({ key, ctrlKey, metaKey, altKey }: KeyboardEvent) => {
      if (ctrlKey || metaKey || altKey) return
      if (/^\d$/.test(key)) type(key)
      else if (key === 'Backspace') back()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  return (
    <div className={styles.pad} aria-busy={busy}>
      <p className={styles.dots} role="status" aria-label={`${digits.length} of ${LENGTH} digits`}>
        {Array.from({ length: LENGTH }, (_, i) => (
          <span key={i} data-full={i < digits.length || undefined} />
        ))}
      </p>
      {KEYS.map((digit) => (
        <button key={digit} type="button" disabled={busy} onClick={() => type(digit)}>
          {digit}
        </button>
      ))}
      <span />
      <button type="button" disabled={busy} onClick={() => type('0')}>
        0
      </button>
      <button type="button" disabled={busy || digits === ''} aria-label="Delete the last digit" onClick={back}>
        <ArrowLeftOutlined />
      </button>
    </div>
  )
}
