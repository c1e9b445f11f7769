'use client'
import { Button, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { ClassFieldValues } from '@/server/classes/classFields'
import { ClassFields } from './ClassFields'
import { NumberField } from '../../kit/NumberField'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { command } from '../../commands/command'
import styles from './timetable.module.css'

type Props = Readonly<{
  open: boolean
  close: () => void
  rooms: readonly Readonly<{ id: string; name: string }>[]
  teachers: readonly Readonly<{ id: string; name: string }>[]
  day: string
}>

/** One class by hand. */
export default function AddClass({ open, close, rooms, teachers, day }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [value, setValue] = useState<ClassFieldValues>({
    title: '',
    day,
    time: '18:00',
    minutes: 45,
    roomId: rooms[0]?.id ?? null,
    teacherId: null,
  })
  const change = (to: Partial<ClassFieldValues>) => setValue((all) => ({ ...all, ...to }))
  const [weeks, setWeeks] = useState(1)
  async function add() {
    const typed = { ...value, weeks }
    const done = await act(() => command('classes.addClass', typed, idFor(typed)))
    if (!done) return
    forget()
    change({ title: '' })
    close()
    router.push(`/class?week=${value.day}`)
    router.refresh()
  }
  return (
    <Modal open={open} onCancel={close} footer={null} title="Add a class" width={500} destroyOnHidden>
      <form
        className={styles.form}
        action={() => {
          void add()
        }}
      >
        <ClassFields value={value} rooms={rooms} teachers={teachers} change={change} />
        <label>
          Repeat weekly, weeks
          <NumberField min={1} max={52} whole value={weeks} onChange={setWeeks} />
        </label>
        <Button type="primary" size="large" htmlType="submit" loading={busy} disabled={value.title.trim() === ''}>
          {weeks === 1 ? 'Add the class' : `Add ${weeks} classes`}
        </Button>
      </form>
    </Modal>
  )
}
