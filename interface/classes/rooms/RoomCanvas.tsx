import { DndContext, MouseSensor, TouchSensor, useSensor, useSensors, type Announcements } from '@dnd-kit/core'
import type { ReactNode } from 'react'
import { TURNED_FROM_DEG } from '@/core/classes/planning/places'
import { lookAside } from './ChosenThing'
import type { Draft, ThingKey } from './roomDraft'
import { BikeSeenFromAbove, Thing } from './RoomThings'
import type { RoomEditorProps } from './roomEditorProps'
import styles from './room.module.css'

type Props = Readonly<{
  draft: Draft
  bikes: RoomEditorProps['bikes']
  /** Pixels a metre. */
  scale: number
  chosen: ThingKey | null
  /** Bikes too close to another. */
  tight: ReadonlySet<string>
  onChoose: (key: ThingKey) => void
  /** By metres. */
  onMove: (key: ThingKey, byXM: number, byYM: number) => void
}>

/** Announcements to screen readers while something is dragged. */
const SPOKEN: Announcements = {
  onDragStart: ({ active }) => `${active.data.current?.name} picked up.`,
  onDragOver: () => undefined,
  onDragEnd: ({ active }) => `${active.data.current?.name} set down.`,
  onDragCancel: ({ active }) => `${active.data.current?.name} stays.`,
}

/** The plan of a room to scale; everything on it can be dragged. */
export function RoomCanvas({ draft, bikes, scale, chosen, tight, onChoose, onMove }: Props) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 3 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 6 } }),
  )
  const numberOf = (id: string) => bikes.find((bike) => bike.id === id)?.number ?? 0
  const thing = (key: ThingKey, at: Readonly<{ xM: number; yM: number }>, label: string, body: ReactNode) => (
    <Thing
      key={key}
      id={key}
      label={label}
      chosen={key === chosen}
      left={at.xM * scale}
      top={at.yM * scale}
      onChoose={() => onChoose(key)}
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
    <DndContext
      sensors={sensors}
      accessibility={{ announcements: SPOKEN }}
      onDragStart={({ active }) => onChoose(String(active.id))}
      onDragEnd={({ active, delta }) => onMove(String(active.id), delta.x / scale, delta.y / scale)}
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
        {thing('instructor', draft.plan.instructor, 'instructor', <i className={styles.instructor}>instructor</i>)}
        {Object.entries(draft.places).map(([id, place]) =>
          thing(
            `bike:${id}`,
            place,
            `bike ${numberOf(id)}`,
            <BikeSeenFromAbove
              number={numberOf(id)}
              headingDeg={place.headingDeg}
              scale={scale}
              tight={tight.has(id)}
              turned={lookAside(draft.plan, place) > TURNED_FROM_DEG}
            />,
          ),
        )}
      </div>
    </DndContext>
  )
}
