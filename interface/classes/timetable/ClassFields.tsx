'use client'
import { DatePicker, Input, Select, TimePicker } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import '@/interface/kit/antd/pickers.generated.css'
import dayjs from 'dayjs'
import type { ClassFieldValues } from '@/server/classes/classFields'
import { NumberField } from '../../kit/NumberField'
import styles from './classFields.module.css'

type Named = Readonly<{ id: string; name: string }>
type Props = Readonly<{
  value: ClassFieldValues
  rooms: readonly Named[]
  teachers: readonly Named[]
  change: (to: Partial<ClassFieldValues>) => void
}>

/** The fields of one class. */
export function ClassFields({ value, rooms, teachers, change }: Props) {
  const { title, day, time, minutes, roomId, teacherId } = value
  return (
    <>
      <label>
        Name
        <Input
          size="large"
          value={title}
          autoFocus
          maxLength={120}
          onChange={(event) => change({ title: event.target.value })}
        />
      </label>
      <div className={styles.pair}>
        <label>
          Day
          <DatePicker
            size="large"
            allowClear={false}
            inputReadOnly
            format="ddd D MMM YYYY"
            value={dayjs(day)}
            onChange={(to) => to && change({ day: to.format('YYYY-MM-DD') })}
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
            onChange={(to) => to && change({ time: to.format('HH:mm') })}
          />
        </label>
        <label>
          Minutes
          <NumberField
            min={5}
            max={600}
            step={5}
            unit="min"
            whole
            value={minutes}
            onChange={(to) => change({ minutes: to })}
          />
        </label>
      </div>
      {rooms.length > 0 && (
        <label>
          Room
          <Select
            size="large"
            value={roomId}
            options={rooms.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(to) => change({ roomId: to })}
          />
        </label>
      )}
      {teachers.length > 0 && (
        <label>
          Who teaches
          <Select
            size="large"
            value={teacherId ?? ''}
            options={[
              { value: '', label: 'Not said' },
              ...teachers.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChange={(to) => change({ teacherId: to === '' ? null : to })}
          />
        </label>
      )}
    </>
  )
}
