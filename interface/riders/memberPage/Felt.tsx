'use client'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { FELT_PLACES, MAX_LINE_LENGTH, type FeltPlace } from '@/core/riders/memberPage/message'
import { FELT_PLACE_NAME } from '@/core/messages/riders/memberPage'
import { ScoreRow } from '../../kit/ScoreRow'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { ownCommand } from '../../commands/command'
import styles from './memberPage.module.css'

/** How did it feel: 0 to 10, where, one line. */
export function Felt({ token }: { token: string }) {
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [comfort, setComfort] = useState<number | null>(null)
  const [place, setPlace] = useState<FeltPlace>('nowhere')
  const [line, setLine] = useState('')
  const [sent, setSent] = useState(false)
  async function send() {
    const felt = { comfort, place, line }
    if (!(await act(() => ownCommand(token, 'ownPage.sendFelt', { felt }, idFor(felt))))) return
    forget()
    setSent(true)
  }
  if (sent)
    return (
      <section className={styles.part} aria-label="How did it feel">
        <p className={styles.lead} role="status">
          Thank you; your instructor reads it before your next ride.
        </p>
        <Button size="large" onClick={() => setSent(false)}>
          Say something else
        </Button>
      </section>
    )
  return (
    <section className={styles.part} aria-label="How did it feel">
      <h2>How did it feel?</h2>
      <ScoreRow label="0 could not ride, 10 as if it were mine" given={comfort} give={setComfort} />
      <p className={styles.ends}>
        <span>could not ride</span>
        <span>as if it were mine</span>
      </p>
      <div className={styles.places} role="group" aria-label="Where was something">
        {FELT_PLACES.map((one) => (
          <button key={one} type="button" aria-pressed={place === one} onClick={() => setPlace(one)}>
            {FELT_PLACE_NAME[one]}
          </button>
        ))}
      </div>
      <Input
        size="large"
        maxLength={MAX_LINE_LENGTH}
        placeholder="In one line, if you like"
        aria-label="In one line"
        value={line}
        onChange={(event) => setLine(event.target.value)}
      />
      <Button type="primary" size="large" block disabled={comfort === null} loading={busy} onClick={send}>
        Send
      </Button>
    </section>
  )
}
