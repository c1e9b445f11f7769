'use client'
import { DndContext, MouseSensor, TouchSensor, useSensor, useSensors } from '@dnd-kit/core'
import { App, Button, Input } from 'antd'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useEffect, useReducer, useRef, useState, type KeyboardEvent, type ReactNode } from 'react'
import { overlappingBikes, SNAP_M, type RoomPlan, type Stand } from '@/core/planning/roomPlan'
import { TURNED_FROM_DEG } from '@/core/planning/places'
import { NumberField } from '../shared/NumberField'
import { useAction } from '../shared/useAction'
import { command } from '../commands/command'
import { ChosenThing, lookAside } from './ChosenThing'
import { afterDraft, type Draft, type ThingKey } from './roomDraft'
import { BikeSeenFromAbove, Thing } from './RoomThings'
import styles from './room.module.css'

export type EditedRoom = Readonly<{
  id: string
  name: string
  plan: RoomPlan
  places: Readonly<Record<string, Stand>>
  /** Not kept yet. */
  fresh: boolean
}>
type Props = Readonly<{
  room: EditedRoom
  rooms: readonly Readonly<{ id: string; name: string }>[]
  bikes: readonly Readonly<{ id: string; number: number; type: string; elsewhere: string | null }>[]
}>

/** A room to scale: bikes, instructor's place, screens, doors and fans are dragged, turned, or moved by the arrows. */
export function RoomEditor({ room, rooms, bikes }: Props) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const first: Draft = { name: room.name, plan: room.plan, places: room.places }
  const [{ draft, before }, change] = useReducer(afterDraft, { draft: first, before: [] })
  const [chosen, setChosen] = useState<ThingKey | null>(null)
  const [kept, setKept] = useState<Draft>(first)
  const [scale, frame] = useScale(draft.plan)
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 3 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 6 } }),
  )
  const numberOf = (id: string) => bikes.find((bike) => bike.id === id)?.number ?? 0
  const out = bikes.filter(({ id }) => !draft.places[id])
  const near = overlappingBikes(Object.entries(draft.places).map(([id, stand]) => ({ id, ...stand })))
  const tight = new Set(near.flat())
  const unsaved = draft !== kept || room.fresh

  async function save() {
    const places = Object.entries(draft.places).map(([bikeId, stand]) => ({ bikeId, ...stand }))
    const done = await act(() =>
      command('rooms.saveRoom', { roomId: room.id, name: draft.name, plan: draft.plan, places }),
    )
    if (!done) return
    setKept(draft)
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

  const thing = (key: ThingKey, at: Readonly<{ xM: number; yM: number }>, label: string, body: ReactNode) => (
    <Thing
      key={key}
      id={key}
      label={label}
      chosen={key === chosen}
      left={at.xM * scale}
      top={at.yM * scale}
      onChoose={() => setChosen(key)}
    >
      {body}
    </Thing>
  )
  const fixtures = (['screen', 'door', 'fan'] as const).flatMap((what) =>
    draft.plan[`${what}s`].map((at, i) =>
      thing(`${what}:${i}`, at, `${what} ${i + 1}`, <i className={styles[what]}>{what}</i>),
    ),
  )
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
          <DndContext
            sensors={sensors}
            onDragStart={({ active }) => setChosen(String(active.id))}
            onDragEnd={({ active, delta }) =>
              change({ kind: 'move', key: String(active.id), byXM: delta.x / scale, byYM: delta.y / scale })
            }
          >
            <div
              className={styles.plan}
              style={{
                width: draft.plan.widthM * scale,
                height: draft.plan.depthM * scale,
                backgroundSize: `${scale}px ${scale}px`,
              }}
              role="group"
              aria-label={`Plan of ${draft.name}, ${draft.plan.widthM} by ${draft.plan.depthM} metres`}
            >
              <span className={styles.wall}>the instructor’s wall</span>
              {fixtures}
              {thing(
                'instructor',
                draft.plan.instructor,
                'instructor',
                <i className={styles.instructor}>instructor</i>,
              )}
              {Object.entries(draft.places).map(([id, stand]) =>
                thing(
                  `bike:${id}`,
                  stand,
                  `bike ${numberOf(id)}`,
                  <BikeSeenFromAbove
                    number={numberOf(id)}
                    headingDeg={stand.headingDeg}
                    scale={scale}
                    tight={tight.has(id)}
                    turned={lookAside(draft.plan, stand) > TURNED_FROM_DEG}
                  />,
                ),
              )}
            </div>
          </DndContext>
        </div>
        <aside className={styles.side}>
          <div className={styles.size}>
            <label>
              Name
              <Input
                size="large"
                value={draft.name}
                maxLength={80}
                onChange={(e) => change({ kind: 'rename', name: e.target.value })}
              />
            </label>
            <label>
              Width
              <NumberField
                min={3}
                max={60}
                step={0.5}
                unit="m"
                value={draft.plan.widthM}
                onChange={(widthM) => change({ kind: 'size', widthM, depthM: draft.plan.depthM })}
              />
            </label>
            <label>
              Depth
              <NumberField
                min={3}
                max={60}
                step={0.5}
                unit="m"
                value={draft.plan.depthM}
                onChange={(depthM) => change({ kind: 'size', widthM: draft.plan.widthM, depthM })}
              />
            </label>
          </div>
          <ChosenThing
            chosen={chosen}
            draft={draft}
            numberOf={numberOf}
            turn={(byDeg) => chosen && change({ kind: 'turn', key: chosen, byDeg })}
            takeOut={() => {
              if (chosen) change({ kind: 'takeOut', key: chosen })
              setChosen(null)
            }}
          />
          <div className={styles.adds}>
            {(['screen', 'door', 'fan'] as const).map((what) => (
              <Button key={what} size="large" onClick={() => change({ kind: 'add', what })}>
                Add a {what}
              </Button>
            ))}
            <Button
              size="large"
              onClick={() =>
                change({
                  kind: 'arrange',
                  bikeIds:
                    Object.keys(draft.places).length > 0
                      ? bikes.filter(({ id }) => draft.places[id]).map(({ id }) => id)
                      : bikes.map(({ id }) => id),
                })
              }
            >
              {Object.keys(draft.places).length > 0 ? 'Set in rows' : 'Set all bikes in rows'}
            </Button>
          </div>
          {out.length > 0 && (
            <section>
              <h2>Not in this room</h2>
              <div className={styles.out}>
                {out.map(({ id, number, elsewhere }) => (
                  <button
                    key={id}
                    type="button"
                    title={elsewhere ? `stands in ${elsewhere}` : undefined}
                    onClick={() => {
                      change({ kind: 'place', bikeId: id })
                      setChosen(`bike:${id}`)
                    }}
                  >
                    {number}
                    {elsewhere && <small>{elsewhere}</small>}
                  </button>
                ))}
              </div>
            </section>
          )}
          {near.length > 0 && (
            <p className={styles.tightLine}>
              Too close:{' '}
              {near
                .slice(0, 4)
                .map(([a, b]) => `${numberOf(a)} and ${numberOf(b)}`)
                .join(', ')}
              .
            </p>
          )}
          <p className={styles.quiet}>
            Drag, or choose and use the arrows (with shift a metre); [ and ] turn. Everything lands on a quarter of a
            metre.
          </p>
          {!room.fresh && (
            <Button
              danger
              type="text"
              onClick={async () => {
                const done = await act(() => command('rooms.removeRoom', { roomId: room.id }))
                if (done) router.push('/rooms')
              }}
            >
              Take this room away
            </Button>
          )}
        </aside>
      </div>
    </article>
  )
}

/** Pixels a metre, so that the whole room fits the frame. */
function useScale(plan: RoomPlan): readonly [number, React.RefObject<HTMLDivElement | null>] {
  const frame = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState({ width: 800, height: 600 })
  useEffect(() => {
    const element = frame.current
    if (!element) return
    const measure = () => {
      const { width } = element.getBoundingClientRect()
      setSize({ width, height: Math.max(420, window.innerHeight - 190) })
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  const scale = Math.max(24, Math.min(size.width / plan.widthM, size.height / plan.depthM))
  return [scale, frame]
}
