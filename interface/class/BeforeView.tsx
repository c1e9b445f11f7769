'use client'
import {
  closestCenter,
  DndContext,
  DragOverlay,
  KeyboardSensor,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useSensor,
  useSensors,
  type Announcements,
  type CollisionDetection,
  type DragEndEvent,
} from '@dnd-kit/core'
import { App, Button } from 'antd'
import { useState } from 'react'
import { formatExtra } from '@/core/messages/planning'
import type { FloorBefore, FloorTile } from '@/server/pages/floor'
import { FloorRows } from '../floor/FloorRows'
import { clockTime } from '../shared/clockTime'
import { useAction } from '../shared/useAction'
import { useRefresh } from '../shared/useRefresh'
import { ask, command, type CommandAnswer } from '../commands/command'
import styles from './before.module.css'
import { BeforePanel } from './BeforePanel'
import { BeforeTile } from './BeforeTile'
import { ClassHead } from './ClassHead'
import type { ClassInfo } from './classTypes'
import { toNextBike } from './floorKeys'
import { RiderPicker } from './RiderPicker'
import { useClassNews } from './useClassNews'

type Props = Readonly<{
  info: ClassInfo
  floor: FloorBefore
  studio: string
  seesNotes: boolean
  mayPlan: boolean
  maySetUp: boolean
}>

/** A change of the places as its door answers. */
type PlacesAnswer = CommandAnswer<
  'places.assignBike' | 'places.addRider' | 'places.changeRider' | 'places.placeEverybody' | 'places.swapRiders'
>

/** What of the class is printed, or taken along. */
const SHEETS = [
  { file: 'sheet.pdf', name: 'Sheet' },
  { file: 'tags.pdf', name: 'Bike tags' },
  { file: 'sheet.csv', name: 'List' },
] as const
/** Key of the one message about the places. */
const PLACES_MESSAGE = 'places'
/** The queue runs under a real clock: it is worked out anew so often, ms. */
const REFRESH_MS = 30_000

/** What a screen reader is told while a rider is carried. */
const spokenMoves: Announcements = {
  onDragStart: ({ active }) => `${active.data.current?.name} picked up.`,
  onDragOver: ({ active, over }) =>
    over ? `${active.data.current?.name} over bike ${over.data.current?.number}.` : 'Over no bike.',
  onDragEnd: ({ active, over }) =>
    over ? `${active.data.current?.name} set down on bike ${over.data.current?.number}.` : 'Set down where it was.',
  onDragCancel: ({ active }) => `${active.data.current?.name} stays.`,
}

/** The keyboard carries from bike to bike; a hand drops where the pointer is. */
const dropsOn: CollisionDetection = (args) => {
  const under = pointerWithin(args)
  return under.length > 0 || args.pointerCoordinates ? under : closestCenter(args)
}

/** Before a class: who sits where, the numbers to set, and who is set up next, so that all are ready at the start. */
export function BeforeView({ info, floor, studio, seesNotes, mayPlan, maySetUp }: Props) {
  const refresh = useRefresh(REFRESH_MS)
  const { message, modal } = App.useApp()
  const { act, busy } = useAction()
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

  /** Changes the places, shows what changed, and offers Undo. */
  async function change(
    say: string | ((done: { number?: number | null }) => string),
    action: () => Promise<PlacesAnswer>,
  ) {
    const done = await act(action)
    if (!done) return false
    refresh()
    const said = [
      typeof say === 'string' ? say : say('number' in done ? done : {}),
      done.others,
      formatExtra(done.extraMin ?? null),
    ]
    const { undo } = done
    message.open({
      key: PLACES_MESSAGE,
      type: 'success',
      duration: 12,
      content: (
        <span>
          {said.filter(Boolean).join(' ')}{' '}
          {undo && (
            <Button
              onClick={async () => {
                message.destroy(PLACES_MESSAGE)
                if (await act(() => command('places.undoPlaces', { classId: info.id, undo })))
                  message.success('Taken back.', 3)
                refresh()
              }}
            >
              Undo
            </Button>
          )}
        </span>
      ),
    })
    return true
  }

  /** Places everybody again; from the doors on only after a look at who would move. */
  async function placeAgain() {
    const place = () =>
      change('Everybody is placed around who is here or pinned.', () =>
        command('places.placeEverybody', { classId: info.id }),
      )
    if (!floor.doorsOpen || ridden.length === 0) return place()
    const preview = await act(() => ask('places.previewPlaces', { classId: info.id }))
    if (!preview) return
    if (preview.others === '') return place()
    modal.confirm({
      title: preview.others,
      content: formatExtra(preview.extraMin) || 'It takes as long to set everybody up as now.',
      okText: 'Move them',
      cancelText: 'Leave everybody',
      autoFocusButton: 'cancel',
      onOk: () => place().then(() => undefined),
    })
  }

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
  const hasNext = maySetUp && floor.queue.length > 0
  const picker = askOf(asking, floor)
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
            {floor.outdatedSheetMs !== null && (
              <p className={styles.outdated} role="status">
                The sheet printed at {clockTime(floor.outdatedSheetMs, info.timeZone)} is out of date. Print it again.
              </p>
            )}
            <div className={`${styles.bar} no-print`}>
              {ridden.length > 0 &&
                SHEETS.map(({ file, name }) => (
                  <Button key={file} size="large" href={`/api/cards/class/${file}?class=${info.id}`} target="_blank">
                    {name}
                  </Button>
                ))}
            </div>
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

function askOf(asking: string | null, floor: FloorBefore): string | null {
  if (asking === null) return null
  if (asking === 'walkIn') return 'Who came in?'
  if (asking === 'book') return 'Who will come?'
  return `Who sits on bike ${floor.tiles.find(({ bikeId }) => bikeId === asking)?.number}?`
}
