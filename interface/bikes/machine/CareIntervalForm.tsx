'use client'
import { Button, Input, Popover } from 'antd'
import '@/interface/kit/antd/popover.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CareInterval, CareIntervals, CarePart } from '@/core/bikes/care/care'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import styles from './careList.module.css'

type Props = Readonly<{ bikeId: string; part: CarePart; interval: CareInterval; own: CareIntervals }>

/** A whole number of at least 1, or undefined for an empty field; null for anything else. */
function countOf(typed: string): number | undefined | null {
  if (typed.trim() === '') return undefined
  const value = Number(typed)
  return Number.isInteger(value) && value >= 1 ? value : null
}

/** How often a part of this machine is seen to: days, rides, or both. */
export function CareIntervalForm({ bikeId, part, interval, own }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  const [open, setOpen] = useState(false)
  const [days, setDays] = useState(String(interval.days ?? ''))
  const [rides, setRides] = useState(String(interval.rides ?? ''))
  const read = { days: countOf(days), rides: countOf(rides) }
  const isWrong = read.days === null || read.rides === null || (read.days === undefined && read.rides === undefined)
  async function save(intervals: CareIntervals) {
    if (!(await act(() => command('bikes.setCareIntervals', { bikeId, intervals })))) return
    setOpen(false)
    router.refresh()
  }
  const { [part]: mine, ...rest } = own
  const form = (
    <form
      className={styles.interval}
      onSubmit={(event) => {
        event.preventDefault()
        if (!isWrong)
          void save({
            ...rest,
            [part]: { ...(read.days && { days: read.days }), ...(read.rides && { rides: read.rides }) },
          })
      }}
    >
      <label>
        Days
        <Input size="large" inputMode="numeric" value={days} onChange={(event) => setDays(event.target.value)} />
      </label>
      <label>
        Rides
        <Input size="large" inputMode="numeric" value={rides} onChange={(event) => setRides(event.target.value)} />
      </label>
      {mine && (
        <Button size="large" onClick={() => save(rest)} loading={busy}>
          As usual
        </Button>
      )}
      <Button size="large" type="primary" htmlType="submit" disabled={isWrong} loading={busy}>
        Keep
      </Button>
    </form>
  )
  return (
    <Popover open={open} onOpenChange={setOpen} trigger="click" title="Seen to every" content={form}>
      <Button type="link">Change</Button>
    </Popover>
  )
}
