'use client'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useReducer, useState, type KeyboardEvent } from 'react'
import { overlappingBikes, SNAP_M } from '@/core/classes/planning/roomPlan'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import { Link } from '../../kit/Link'
import { RoomCanvas } from './RoomCanvas'
import { RoomSide } from './RoomSide'
import { useScale } from './useScale'
import { afterDraft, type Draft, type ThingKey } from './roomDraft'
import type { RoomEditorProps } from './roomEditorProps'
import styles from './room.module.css'

/** A room to scale: bikes, instructor's place, screens, doors and fans are dragged, turned, or moved by the arrows. */
export function RoomEditor({ room, rooms, bikes }: RoomEditorProps) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const first: Draft = { name: room.name, plan: room.plan, places: room.places }
  const [{ draft, before }, change] = useReducer(afterDraft, { draft: first, before: [] })
  const [chosen, setChosen] = useState<ThingKey | null>(null)
  const [saved, setSaved] = useState<Draft>(first)
  const [scale, frame] = useScale(draft.plan)
  const near = overlappingBikes(Object.entries(draft.places).map(([id, place]) => ({ id, ...place })))
  const tight = new Set(near.flat())
  const unsaved = draft !== saved || room.fresh

  async function save() {
    const places = Object.entries(draft.places).map(([bikeId, place]) => ({ bikeId, ...place }))
    const done = await act(() =>
      command('rooms.saveRoom', { roomId: room.id, name: draft.name, plan: draft.plan, places }),
    )
    if (!done) return
    setSaved(draft)
    message.success('The room is kept.', 3)
    if (room.fresh) router.replace(`/rooms?room=${room.id}`)
    router.refresh()
  }

  function press(event: KeyboardEvent) {
    if (!chosen || event.target instanceof HTMLInputElement) return
    const step = event.shiftKey ? 1 : SNAP_M
    const way = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key]
    if (way) change({ kind: 'move', key: chosen, byXM: way[0], byYM: way[1] })
    else if (event.key === '[' || event.key === ']')
      change({ kind: 'turn', key: chosen, byDeg: event.key === ']' ? 5 : -5 })
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      change({ kind: 'takeOut', key: chosen })
      setChosen(null)
    } else return
    event.preventDefault()
  }

  return (
    <article onKeyDown={press}>
      <header className={styles.head}>
        <h1>Rooms</h1>
        <nav className={styles.rooms} aria-label="Rooms of the studio">
          {rooms.map(({ id, name }) => (
            <Link
              key={id}
              href={`/rooms?room=${id}`}
              className={id === room.id ? styles.here : undefined}
              aria-current={id === room.id ? 'page' : undefined}
            >
              {name}
            </Link>
          ))}
          <Link href="/rooms?room=new">New room</Link>
        </nav>
        <div className={styles.ways}>
          <Button size="large" disabled={before.length === 0} onClick={() => change({ kind: 'undo' })}>
            Undo
          </Button>
          <Button size="large" type="primary" loading={busy} disabled={!unsaved || !draft.name.trim()} onClick={save}>
            Keep the room
          </Button>
        </div>
      </header>
      <div className={styles.page}>
        <div ref={frame} className={styles.frame}>
          <RoomCanvas
            draft={draft}
            bikes={bikes}
            scale={scale}
            chosen={chosen}
            tight={tight}
            onChoose={setChosen}
            onMove={(key, byXM, byYM) => change({ kind: 'move', key, byXM, byYM })}
          />
        </div>
        <RoomSide
          room={room}
          bikes={bikes}
          draft={draft}
          chosen={chosen}
          near={near}
          change={change}
          onChoose={setChosen}
        />
      </div>
    </article>
  )
}
