'use client'
import { Button, Input, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useRouter } from 'next/navigation'
import { useState, type FormEvent } from 'react'
import { formatTablet, IDLE_MINUTES, TABLETS_TEXT } from '@/core/messages/studio/tablets'
import type { DevicesPage } from '@/server/pages/studio/devices'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { newSecret } from '../../kit/secretToken'
import { useOutbox } from '../../offline/OutboxProvider'
import styles from './devices.module.css'

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const MINUTES = IDLE_MINUTES.map((value) => ({ value, label: `Locks after ${value} minutes` }))
const DEFAULT_MINUTES = 5

/** Tablets that several people share: pairs the device in hand, unpairs any. */
export function SharedTablets({ tablets, rooms }: Pick<DevicesPage, 'tablets' | 'rooms'>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const end = async (tabletId: string) => {
    if (await act(() => command('people.endTablet', { tabletId }))) router.refresh()
  }
  return (
    <section aria-label="Shared tablets" className={styles.shared}>
      <h2>Shared tablets</h2>
      <p className={styles.quiet}>{TABLETS_TEXT.about}</p>
      {tablets.length === 0 && <p className={styles.quiet}>{TABLETS_TEXT.none}</p>}
      <ul className={styles.tablets}>
        {tablets.map(({ id, name, room, idleMinutes, usedAt }) => (
          <li key={id}>
            <span>
              <b>{name}</b>
              <small>{formatTablet(room, idleMinutes, usedAt && DAY.format(usedAt))}</small>
            </span>
            <Button size="large" danger loading={busy} onClick={() => void end(id)}>
              Unpair
            </Button>
          </li>
        ))}
      </ul>
      <PairThisDevice rooms={rooms} />
    </section>
  )
}

/** Makes the device in hand a shared tablet, and signs the manager out on it. */
function PairThisDevice({ rooms }: Pick<DevicesPage, 'rooms'>) {
  const { act, busy } = useAction()
  const { forgetDevice } = useOutbox()
  const [name, setName] = useState('')
  const [roomId, setRoomId] = useState<string | null>(null)
  const [trouble, setTrouble] = useState('')
  const [idleMinutes, setIdleMinutes] = useState<number>(DEFAULT_MINUTES)
  async function pair(event: FormEvent) {
    event.preventDefault()
    const { secret, fingerprint } = await newSecret()
    if (!(await act(() => command('people.pairTablet', { name, roomId, idleMinutes, tokenHash: fingerprint })))) return
    const post = (address: string, body: object) =>
      fetch(address, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
    const taken = await post('/api/accounts/tablet', { token: secret }).catch(() => null)
    if (!taken?.ok) return setTrouble(TABLETS_TEXT.notTaken)
    await forgetDevice().catch(() => undefined)
    await post('/api/auth/sign-out', {}).catch(() => null)
    window.location.replace('/sign-in')
  }
  return (
    <form className={styles.pair} onSubmit={pair} aria-label="Share this device">
      <h3>Share this device</h3>
      <div className={styles.fields}>
        <Input
          size="large"
          aria-label="What this tablet is called"
          placeholder="Such as: by the stage"
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        {rooms.length > 0 && (
          <Select
            size="large"
            aria-label="Its room"
            value={roomId ?? ''}
            options={[{ value: '', label: 'In no room' }, ...rooms.map(({ id, name }) => ({ value: id, label: name }))]}
            onChange={(chosen: string) => setRoomId(chosen || null)}
          />
        )}
        <Select
          size="large"
          aria-label="When it locks"
          value={idleMinutes}
          options={MINUTES}
          onChange={(chosen: number) => setIdleMinutes(chosen)}
        />
        <Button size="large" htmlType="submit" loading={busy} disabled={name.trim() === ''}>
          Pair it
        </Button>
      </div>
      {trouble ? <p role="alert">{trouble}</p> : <p className={styles.quiet}>{TABLETS_TEXT.pairing}</p>}
    </form>
  )
}
