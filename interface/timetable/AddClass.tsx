'use client'
import { Button, DatePicker, Input, Modal, Select, TimePicker } from 'antd'
import dayjs from 'dayjs'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { NumberField } from '../shared/NumberField'
import { useAction } from '../shared/useAction'
import { useIdempotencyKey } from '../shared/useIdempotencyKey'
import { addClass } from './actions'
import styles from './timetable.module.css'

type Props = Readonly<{
  open: boolean
  close: () => void
  rooms: readonly Readonly<{ id: string; name: string }>[]
  day: string
}>

/** One class by hand. */
export function AddClass({ open, close, rooms, day }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [title, setTitle] = useState('')
  const [on, setOn] = useState(day)
  const [time, setTime] = useState('18:00')
  const [minutes, setMinutes] = useState(45)
  const [weeks, setWeeks] = useState(1)
  const [roomId, setRoom] = useState<string | null>(rooms[0]?.id ?? null)
  async function add() {
    const typed = { title, day: on, time, minutes, roomId, weeks }
    const done = await act(() => addClass(idFor(typed), typed))
    if (!done) return
    forget()
    setTitle('')
    close()
    router.push(`/class?week=${on}`)
    router.refresh()
  }
  return (
    <Modal open={open} onCancel={close} footer={null} title="Add a class" width={460} destroyOnHidden>
      <form
        className={styles.form}
        action={() => {
          void add()
        }}
      >
        <label>
          Name
          <Input size="large" value={title} autoFocus maxLength={120} onChange={(e) => setTitle(e.target.value)} />
        </label>
        <div className={styles.pair}>
          <label>
            Day
            <DatePicker
              size="large"
              allowClear={false}
              value={dayjs(on)}
              onChange={(value) => value && setOn(value.format('YYYY-MM-DD'))}
            />
          </label>
          <label>
            Start
            <TimePicker
              size="large"
              allowClear={false}
              format="HH:mm"
              minuteStep={5}
              needConfirm={false}
              value={dayjs(`2000-01-01T${time}`)}
              onChange={(value) => value && setTime(value.format('HH:mm'))}
            />
          </label>
          <label>
            Minutes
            <NumberField min={5} max={600} step={5} unit="min" whole value={minutes} onChange={setMinutes} />
          </label>
        </div>
        {rooms.length > 0 && (
          <label>
            Room
            <Select
              size="large"
              value={roomId}
              options={rooms.map(({ id, name }) => ({ value: id, label: name }))}
              onChange={setRoom}
            />
          </label>
        )}
        <label>
          Repeat weekly, weeks
          <NumberField min={1} max={52} whole value={weeks} onChange={setWeeks} />
        </label>
        <Button type="primary" size="large" htmlType="submit" loading={busy} disabled={title.trim() === ''}>
          {weeks === 1 ? 'Add the class' : `Add ${weeks} classes`}
        </Button>
      </form>
    </Modal>
  )
}
