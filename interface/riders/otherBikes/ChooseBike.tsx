'use client'
import { App, Button, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { asSentence } from '@/core/messages/refusals'
import { command } from '../../commands/command'
import styles from '../rider/rider.module.css'

type Props = Readonly<{
  memberId: string
  bikes: readonly Readonly<{ id: string; number: number; type: string }>[]
  /** The seat of tonight: it comes first. */
  seat: Readonly<{ bikeId: string; number: number; when: string }> | null
  /** What it is chosen for, or null while nothing is. */
  choosing: 'setUp' | 'told' | null
  close: () => void
}>

/** At which bike a set-up begins. */
export function ChooseBike({ memberId, bikes, seat, choosing, close }: Props) {
  const router = useRouter()
  const { message } = App.useApp()
  const [busy, setBusy] = useState('')
  async function start(bikeId: string) {
    setBusy(bikeId)
    try {
      const started = await command('setups.startSetup', { memberId, bikeId })
      if (started.outcome === 'kept')
        return router.push(`/set-up/${started.setupId}${choosing === 'told' ? '?told=1' : ''}`)
      message.error(asSentence(started.say), 6)
    } catch {
      message.error('The studio’s server cannot be reached. Try again.', 6)
    }
    setBusy('')
  }
  return (
    <Modal open={choosing !== null} onCancel={close} footer={null} title="At which bike?" width={720}>
      {seat && bikes.some(({ id }) => id === seat.bikeId) && (
        <Button
          type="primary"
          size="large"
          block
          autoFocus
          loading={busy === seat.bikeId}
          onClick={() => start(seat.bikeId)}
        >
          Bike {seat.number}: {seat.when}
        </Button>
      )}
      <div className={styles.bikes}>
        {bikes.map(({ id, number, type }) => (
          <button key={id} type="button" disabled={busy !== ''} aria-busy={busy === id} onClick={() => start(id)}>
            <b>{number}</b>
            {type}
          </button>
        ))}
      </div>
    </Modal>
  )
}
