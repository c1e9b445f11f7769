'use client'
import { App, Button, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import { AntdProvider } from '../../kit/theme/AntdProvider'
import { NumberField } from '../../kit/NumberField'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import type { ClassFieldValues } from '@/server/classes/classFields'
import { ClassFields } from './ClassFields'
import styles from './classFields.module.css'
import { query, command, type Found } from '../../commands/command'

type Props = Readonly<{ open: boolean; classId: string; close: () => void }>

/** Time to take it back, s. */
const UNDO_S = 8

/** Renames, moves, repeats or calls off a class, and sets its teacher; all but repeating have Undo. */
export default function EditClass({ open, classId, close }: Props) {
  return (
    // Shows the message with its undo after the dialog has closed.
    <AntdProvider inside>{open && <Dialog classId={classId} close={close} />}</AntdProvider>
  )
}

function Dialog({ classId, close }: Omit<Props, 'open'>) {
  const { act } = useAction()
  const [found, setFound] = useState<Found<'classes.classForEdit'> | null>(null)
  useEffect(() => {
    let isStale = false
    void act(() => query('classes.classForEdit', { classId })).then((answer) => {
      if (isStale) return
      if (answer) setFound(answer)
      else close()
    })
    return () => {
      isStale = true
    }
    // Fetched once, when it opens.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [classId])
  return (
    <Modal open onCancel={close} footer={null} title="Edit class" width={500} loading={found === null}>
      {found && <Form classId={classId} found={found} close={close} />}
    </Modal>
  )
}

function Form({
  classId,
  found,
  close,
}: Readonly<{ classId: string; found: Found<'classes.classForEdit'>; close: () => void }>) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [value, setValue] = useState<ClassFieldValues>(found.facts)
  const [weeks, setWeeks] = useState(1)
  const isChanged = JSON.stringify(value) !== JSON.stringify(found.facts)

  /** Shows what was done, with Undo where possible. */
  function notify(what: string, undo?: () => Promise<unknown>) {
    close()
    router.refresh()
    message.success(
      <>
        {what}
        {undo && (
          <Button type="link" onClick={() => void undo().then(() => router.refresh())}>
            Undo
          </Button>
        )}
      </>,
      UNDO_S,
    )
  }
  async function save() {
    if (!(await act(() => command('classes.changeClass', { classId, from: found.facts, to: value })))) return
    notify('The class is changed.', () =>
      act(() => command('classes.changeClass', { classId, from: value, to: found.facts })),
    )
  }
  async function repeat() {
    const done = await act(() => command('classes.repeatClass', { classId, weeks }, idFor({ classId, weeks })))
    if (!done) return
    forget()
    notify(weeks === 1 ? 'Added for the week after.' : `Added for the ${weeks} weeks after.`)
  }
  async function cancel(to: boolean) {
    if (!(await act(() => command('classes.cancelClass', { classId, cancelled: to })))) return
    notify(to ? 'The class is called off. Its list and notes stay.' : 'The class takes place.', () =>
      act(() => command('classes.cancelClass', { classId, cancelled: !to })),
    )
  }
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault()
        void save()
      }}
    >
      {found.fromOutside && <p className={styles.hint}>{found.fromOutside}</p>}
      <ClassFields
        value={value}
        rooms={found.rooms}
        teachers={found.teachers}
        change={(to) => setValue((all) => ({ ...all, ...to }))}
      />
      <Button
        type="primary"
        size="large"
        htmlType="submit"
        loading={busy}
        disabled={!isChanged || value.title.trim() === ''}
      >
        Save
      </Button>
      <div className={styles.repeat}>
        <label>
          Repeat, weeks
          <NumberField min={1} max={52} whole value={weeks} onChange={setWeeks} />
        </label>
        <Button size="large" disabled={busy || isChanged} onClick={repeat}>
          {weeks === 1 ? 'Add the week after' : `Add ${weeks} classes`}
        </Button>
        <Button size="large" danger={!found.cancelled} disabled={busy} onClick={() => cancel(!found.cancelled)}>
          {found.cancelled ? 'Takes place again' : 'Call off'}
        </Button>
      </div>
    </form>
  )
}
