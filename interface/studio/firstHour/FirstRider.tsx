'use client'
import { Button, Input, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useRouter } from 'next/navigation'
import { useState, type FormEvent } from 'react'
import type { FirstHourPage } from '@/server/pages/studio/firstHour'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import styles from './firstHour.module.css'

/** A member by name, and straight to their set-up on one of the bikes. */
export function FirstRider({ bikes }: Pick<FirstHourPage, 'bikes'>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const [id] = useState(() => crypto.randomUUID())
  const [name, setName] = useState('')
  const [bikeId, setBikeId] = useState(bikes[0].id)

  async function begin(event: FormEvent) {
    event.preventDefault()
    if (name.trim() === '') return
    const added = await act(() => command('members.addMember', { typed: name, anyway: true }, id))
    if (!added) return
    const started = await act(() => command('setups.startSetup', { memberId: id, bikeId }))
    if (started) router.push(`/set-up/${started.setupId}`)
  }
  return (
    <form className={styles.form} onSubmit={begin}>
      <label>
        Name of the rider
        <Input size="large" autoComplete="off" value={name} onChange={(e) => setName(e.target.value)} />
      </label>
      <label>
        Bike
        <Select
          size="large"
          aria-label="Bike"
          value={bikeId}
          options={bikes.map((one) => ({ value: one.id, label: String(one.number) }))}
          onChange={setBikeId}
        />
      </label>
      <Button type="primary" size="large" htmlType="submit" disabled={name.trim() === ''} loading={busy}>
        Set up
      </Button>
    </form>
  )
}
