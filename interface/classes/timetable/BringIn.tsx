'use client'
import { InboxOutlined } from '@ant-design/icons'
import { Button, Modal, Upload } from 'antd'
import '@/interface/kit/antd/upload.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { formatTaken } from '@/core/messages/classes/timetable'
import { useAction } from '../../commands/useAction'
import { query, command, type Found } from '../../commands/command'
import styles from './timetable.module.css'

/** A calendar or a list of classes: looked at first, then taken over. */
export default function BringIn({ open, close }: Readonly<{ open: boolean; close: () => void }>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const [text, setText] = useState('')
  const [name, setName] = useState('')
  const [read, setRead] = useState<Omit<Found<'classes.readTimetable'>, 'outcome'> | null>(null)
  const readIn = async (of: string, take: boolean) => {
    const done = take
      ? await act(() => command('classes.importTimetable', { text: of }))
      : await act(() => query('classes.readTimetable', { text: of }))
    if (!done) return
    setRead(done)
    if (take) router.refresh()
  }
  const end = () => {
    setText('')
    setRead(null)
    close()
  }
  return (
    <Modal open={open} onCancel={end} footer={null} title="Import classes" width={620} destroyOnHidden>
      {!read && (
        <>
          <Upload.Dragger
            accept=".ics,.csv,text/calendar,text/csv"
            showUploadList={false}
            beforeUpload={(file) => {
              setName(file.name)
              void file.text().then((whole) => {
                setText(whole)
                return readIn(whole, false)
              })
              return false
            }}
          >
            <InboxOutlined className={styles.drop} />
            <p>Drop a calendar (.ics) or a list (.csv) here, or tap to choose one.</p>
          </Upload.Dragger>
          <p className={styles.hint}>
            A list has the columns day, start, class, and where you like minutes, room, name, comes (minutes before the
            start); a line for each booking. Nothing is written before you say so.
          </p>
        </>
      )}
      {read && (
        <div className={styles.read}>
          <p>
            <b>{name}</b>:{' '}
            {read.taken
              ? formatTaken(read.taken)
              : `${read.found.length} ${read.found.length === 1 ? 'class' : 'classes'} in the coming weeks.`}
          </p>
          {!read.taken && (
            <ul className={styles.found}>
              {read.found.slice(0, 60).map((one, i) => (
                <li key={i}>
                  <span>{one.when}</span> {one.title}
                  {one.cancelled ? ', cancelled' : one.riders > 0 && `, ${one.riders} booked`}
                </li>
              ))}
            </ul>
          )}
          {read.faults.length > 0 && (
            <details open={read.faults.length <= 6}>
              <summary>{read.faults.length} to look at; the rest is not touched by them</summary>
              <ul className={styles.faults}>
                {read.faults.slice(0, 200).map((fault, i) => (
                  <li key={i}>{fault}</li>
                ))}
              </ul>
            </details>
          )}
          <div className={styles.ways}>
            {read.taken ? (
              <Button type="primary" size="large" onClick={end}>
                Done
              </Button>
            ) : (
              <>
                <Button
                  type="primary"
                  size="large"
                  loading={busy}
                  disabled={read.found.length === 0}
                  onClick={() => readIn(text, true)}
                >
                  Take them over
                </Button>
                <Button size="large" onClick={() => setRead(null)}>
                  Another file
                </Button>
              </>
            )}
          </div>
        </div>
      )}
    </Modal>
  )
}
