'use client'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { AloneItem } from '@/server/pages/classes/alone'
import { clockTime } from '../../kit/clockTime'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import styles from './aloneList.module.css'
import { RiderPicker } from './RiderPicker'

type Props = Readonly<{ items: readonly AloneItem[]; classId: string; timeZone: string }>

/** Riders who set themselves up alone and left a name: they are looked at before anybody else. */
export function AloneList({ items, classId, timeZone }: Props) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [asking, setAsking] = useState<AloneItem | null>(null)
  if (items.length === 0) return null
  async function look(memberId: string) {
    const aloneId = asking!.id
    setAsking(null)
    const started = await act(() => command('alone.look', { aloneId, memberId }))
    if (started) router.push(`/set-up/${started.setupId}?class=${classId}`)
  }
  async function aside({ id, name }: AloneItem) {
    if (!(await act(() => command('alone.putAside', { aloneId: id, aside: true })))) return
    router.refresh()
    const key = `aside-${id}`
    const undo = async () => {
      message.destroy(key)
      if (await act(() => command('alone.putAside', { aloneId: id, aside: false }))) router.refresh()
    }
    message.open({
      key,
      type: 'success',
      duration: 12,
      content: (
        <>
          {name} is put aside. <Button onClick={() => void undo()}>Undo</Button>
        </>
      ),
    })
  }
  return (
    <section className={styles.alone} aria-label="Set alone, not looked at">
      <h2>Set alone, not looked at</h2>
      <ul>
        {items.map((item, i) => (
          <li key={item.id}>
            <b className={styles.number}>{item.number}</b>
            <div className={styles.who}>
              <b>{item.name}</b>
              <span>
                {item.numbers}, {item.isToday ? clockTime(item.atMs, timeZone) : item.day}
              </span>
            </div>
            <div className={styles.does}>
              <Button
                size="large"
                type={i === 0 ? 'primary' : 'default'}
                loading={busy}
                onClick={() => setAsking(item)}
              >
                Look
              </Button>
              <Button size="large" onClick={() => void aside(item)}>
                Put aside
              </Button>
            </div>
          </li>
        ))}
      </ul>
      <RiderPicker
        key={asking?.id ?? ''}
        title={asking && `Which member is “${asking.name}”?`}
        begins={asking?.name}
        close={() => setAsking(null)}
        onPick={(memberId) => void look(memberId)}
        addLabel="and look"
      />
    </section>
  )
}
