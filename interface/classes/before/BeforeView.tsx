'use client'
import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import { Button } from 'antd'
import { useState } from 'react'
import type { AloneItem } from '@/server/pages/classes/alone'
import type { FloorBefore, FloorTile } from '@/server/pages/classes/floor'
import { FloorRows } from '../rooms/FloorRows'
import { clockTime } from '../../kit/clockTime'
import { useRefresh } from '../../kit/useRefresh'
import { command } from '../../commands/command'
import { AloneList } from './AloneList'
import styles from './before.module.css'
import { BeforePanel } from './BeforePanel'
import { BeforeTile } from './BeforeTile'
import { ClassHead } from '../head/ClassHead'
import type { ClassInfo } from '../classTypes'
import { dropsOn, spokenMoves } from './dragging'
import { usePlaces } from './usePlaces'
import { toNextBike } from '../watch/floorKeys'
import { RiderPicker } from './RiderPicker'
import { useClassNews } from '../useClassNews'

type Props = Readonly<{
  info: ClassInfo
  floor: FloorBefore
  /** Who set themselves up alone and waits for a look. */
  alone: readonly AloneItem[]
  studio: string
  seesNotes: boolean
  mayPlan: boolean
  maySetUp: boolean
}>

/** What of the class is printed, or taken along. */
const SHEETS = [
  { file: 'sheet.pdf', name: 'Sheet' },
  { file: 'tags.pdf', name: 'Bike tags' },
  { file: 'sheet.csv', name: 'List' },
] as const
/** Refresh interval of the queue, ms. */
const REFRESH_MS = 30_000

/** Before a class: who sits where, the numbers to set, and who is set up next, so that all are ready at the start. */
export function BeforeView({ info, floor, alone, studio, seesNotes, mayPlan, maySetUp }: Props) {
  const refresh = useRefresh(REFRESH_MS)
  const { change, placeAgain, busy } = usePlaces(info.id, floor, refresh)
  const [chosen, setChosen] = useState<string | null>(null)
  const [carried, setCarried] = useState<string | null>(null)
  const [asking, setAsking] = useState<'walkIn' | 'book' | string | null>(null)
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: toNextBike }),
  )
  useClassNews(info.id, refresh)

  const tileOf = (bikeId: string | null) => floor.tiles.find((tile) => tile.bikeId === bikeId)
  const ridden = floor.tiles.filter(({ rider }) => rider)

  function drop({ active, over }: DragEndEvent) {
    setCarried(null)
    const from = tileOf(String(active.id).replace(/^rider-/, ''))
    const to = tileOf(over ? String(over.id) : null)
    if (!from?.rider || !to || to === from) return
    const { id, name } = from.rider
    if (info.open) void sit(to.bikeId, id, name)
    else if (to.rider) {
      const other = to.rider
      void change(`${name} to ${to.number}, ${other.name} to ${from.number}.`, () =>
        command('places.swapRiders', { classId: info.id, first: id, second: other.id }),
      )
    } else void moveTo(id, name, to.bikeId, to.number)
  }

  const moveTo = (id: string, name: string, bikeId: string, number: number) =>
    change(`${name} to ${number}.`, () =>
      command('places.changeRider', { classId: info.id, memberId: id, change: { pinnedBikeId: bikeId } }),
    )

  async function sit(bikeId: string, memberId: string | null, name: string) {
    setAsking(null)
    const number = tileOf(bikeId)?.number
    await change(memberId ? `${name} on bike ${number}.` : `Bike ${number} is free.`, () =>
      command('places.assignBike', { classId: info.id, bikeId, memberId }),
    )
  }

  /** Adds somebody; a booking leaves the picker open for the next. */
  async function add(memberId: string, name: string, how: 'here' | number) {
    if (how === 'here') setAsking(null)
    await change(
      ({ number }) => `${name}: ${number == null ? 'there is no bike left' : `bike ${number}`}.`,
      () => command('places.addRider', { classId: info.id, memberId, how }),
    )
  }

  const pick = (memberId: string, name: string) =>
    asking === 'walkIn'
      ? add(memberId, name, 'here')
      : asking === 'book'
        ? add(memberId, name, 10)
        : asking !== null && sit(asking, memberId, name)

  // One filled button a page: what is to be done next.
  const hasNext = maySetUp && floor.queue.length + alone.length > 0
  const picker = questionFor(asking, floor)
  return (
    <>
      <ClassHead info={info} moment="before" seesNotes={seesNotes}>
        {!info.open && (
          <>
            <Button type={floor.waiting > 0 || hasNext ? 'default' : 'primary'} onClick={() => setAsking('walkIn')}>
              Walk-in
            </Button>
            <Button onClick={() => setAsking('book')}>Book</Button>
          </>
        )}
        {mayPlan && !info.open && floor.roster.length > 0 && (
          <Button loading={busy} type={floor.waiting > 0 ? 'primary' : 'default'} onClick={placeAgain}>
            {floor.waiting > 0 ? `Place ${floor.waiting} riders` : 'Place again'}
          </Button>
        )}
      </ClassHead>
      <AloneList items={alone} classId={info.id} timeZone={info.timeZone} />
      <DndContext
        sensors={sensors}
        autoScroll={{ threshold: { x: 0.1, y: 0.05 } }}
        collisionDetection={dropsOn}
        onDragStart={({ active }) => setCarried(String(active.data.current?.name ?? ''))}
        onDragCancel={() => setCarried(null)}
        onDragEnd={drop}
        accessibility={{
          announcements: spokenMoves,
          screenReaderInstructions: {
            draggable: 'To move this rider press space, the arrows lead from bike to bike, space sets them down.',
          },
        }}
      >
        <div className={styles.page}>
          <div>
            <FloorRows bikes={floor.tiles} widthM={floor.room.widthM} label="The floor">
              {(tile) => (
                <BeforeTile
                  tile={tile}
                  chosen={tile.bikeId === chosen}
                  onChoose={() =>
                    tile.rider ? setChosen(tile.bikeId === chosen ? null : tile.bikeId) : setAsking(tile.bikeId)
                  }
                />
              )}
            </FloorRows>
            <Sheets info={info} outdatedMs={floor.outdatedSheetMs} hasRiders={ridden.length > 0} />
          </div>
          <BeforePanel
            info={info}
            floor={floor}
            studio={studio}
            mayPlan={mayPlan}
            maySetUp={maySetUp}
            tile={tileOf(chosen)}
            close={() => setChosen(null)}
            choose={setChosen}
            free={(tile: FloorTile) => sit(tile.bikeId, null, '')}
            change={change}
            moveTo={moveTo}
          />
        </div>
        <DragOverlay dropAnimation={null}>{carried && <span className={styles.carried}>{carried}</span>}</DragOverlay>
      </DndContext>
      <RiderPicker
        key={asking ?? ''}
        title={picker}
        close={() => setAsking(null)}
        remarkOf={(memberId) => {
          const seat = floor.tiles.find(({ rider }) => rider?.id === memberId)
          return seat ? `bike ${seat.number}` : floor.roster.some((r) => r.memberId === memberId) ? 'booked' : null
        }}
        onPick={pick}
        addLabel={asking === 'book' ? 'and book' : 'and give a bike'}
        stays={asking === 'book'}
      />
    </>
  )
}

function questionFor(asking: string | null, floor: FloorBefore): string | null {
  if (asking === null) return null
  if (asking === 'walkIn') return 'Who came in?'
  if (asking === 'book') return 'Who will come?'
  return `Who sits on bike ${floor.tiles.find(({ bikeId }) => bikeId === asking)?.number}?`
}

/** What of the class can be printed or taken along, and whether the printed sheet is out of date. */
function Sheets({
  info,
  outdatedMs,
  hasRiders,
}: Readonly<{ info: ClassInfo; outdatedMs: number | null; hasRiders: boolean }>) {
  return (
    <>
      {outdatedMs !== null && (
        <p className={styles.outdated} role="status">
          The sheet printed at {clockTime(outdatedMs, info.timeZone)} is out of date. Print it again.
        </p>
      )}
      <div className={`${styles.bar} no-print`}>
        {hasRiders &&
          SHEETS.map(({ file, name }) => (
            <Button key={file} size="large" href={`/api/cards/class/${file}?class=${info.id}`} target="_blank">
              {name}
            </Button>
          ))}
      </div>
    </>
  )
}
