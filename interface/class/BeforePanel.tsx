'use client'
import { isRoundOffered } from '@/core/planning/round'
import { CloseOutlined } from '@ant-design/icons'
import { App, Button } from 'antd'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { capitalized } from '@/core/messages/phrases'
import { formatComeEarlier, formatMinutes, formatNames, NEED_TITLE, NEED_WORD } from '@/core/messages/planning'
import type { FloorBefore, FloorTile, QueueItem } from '@/server/classes/floor'
import { startSetup } from '../setup/actions'
import { clockTime } from '../shared/clockTime'
import { NumberField } from '../shared/NumberField'
import { StopMark } from '../shared/StopMark'
import { useAction } from '../shared/useAction'
import { changeHands, changeRiderOf, leaveToWarmUp } from './actions'
import styles from './before.module.css'
import type { ClassInfo } from './classTypes'
import { useClassClock } from './useClassClock'

type Props = Readonly<{
  info: ClassInfo
  floor: FloorBefore
  studio: string
  mayPlan: boolean
  maySetUp: boolean
  tile: FloorTile | undefined
  close: () => void
  choose: (bikeId: string) => void
  free: (tile: FloorTile) => void
  /** Makes a change of the places, with its message and Undo; false where it was refused. */
  change: (say: string, action: () => ReturnType<typeof changeRiderOf>) => Promise<boolean>
  moveTo: (memberId: string, name: string, bikeId: string, number: number) => void
}>

/** Beside the floor: the bike that was tapped, or who is set up next. */
export function BeforePanel(props: Props) {
  const { tile } = props
  return (
    <aside className={`${styles.panel} no-print`} data-chosen={tile?.rider ? '' : undefined}>
      {tile?.rider ? <Chosen {...props} /> : <Queue {...props} />}
    </aside>
  )
}

/** A minute of the plan on the studio's clock, of the studio. */
const clockAt = ({ startMs, timeZone }: ClassInfo, minute: number): string =>
  clockTime(startMs + minute * 60_000, timeZone)

function Queue({ info, floor, studio, mayPlan, maySetUp, choose, moveTo }: Props) {
  const { nowMs } = useClassClock()
  const minute = (nowMs - info.startMs) / 60_000
  // The clock goes on between two answers of the server.
  const hasBegun = nowMs > 0 && minute >= 0
  const [next, ...rest] = hasBegun ? [] : floor.queue
  const newcomers = hasBegun ? 0 : floor.queue.filter(({ need }) => need === 'new').length
  return (
    <>
      {next ? (
        <section className={styles.now} aria-label="Next to set up">
          <p>
            {[
              nowMs > 0 && next.fromMin <= minute + 0.5 ? 'Now' : clockAt(info, next.fromMin),
              NEED_TITLE[next.need],
              `${Math.max(1, Math.round(next.toMin - next.fromMin))} min`,
            ].join(', ')}
          </p>
          <p className={styles.who}>
            <BikeOf item={next} /> {next.name} {next.stop && <StopMark why={next.stop} />}
          </p>
          {next.stop && <p>{capitalized(next.stop)}. Refer first: no set-up today.</p>}
          {next.offer && (
            <p className={styles.offer}>
              <span>{offerOf(next)}</span>
              <Button
                onClick={() => moveTo(next.memberId, next.name, next.offer!.bikeId, next.offer!.number)}
              >{`Move to ${next.offer.number}`}</Button>
            </p>
          )}
          {maySetUp && <SetUpButton classId={info.id} memberId={next.memberId} bikeId={next.bikeId} />}
        </section>
      ) : (
        <p className={styles.quiet}>{emptyQueue(info, floor, hasBegun)}</p>
      )}
      {rest.length > 0 && (
        <section>
          <h2>Then</h2>
          <ol className={styles.queue}>
            {rest.map((item) => (
              <li key={item.memberId}>
                <span className={item.fromMin <= minute && nowMs > 0 ? styles.past : undefined}>
                  {clockAt(info, item.fromMin)}
                </span>
                <BikeOf item={item} />
                <button type="button" onClick={() => choose(item.bikeId)}>
                  {item.name}
                  {item.stop && <StopMark why={item.stop} />}
                </button>
                <em>
                  {NEED_WORD[item.need]}, {Math.max(1, Math.round(item.toMin - item.fromMin))} min
                </em>
              </li>
            ))}
          </ol>
        </section>
      )}
      {hasBegun ? (
        floor.notSetUp.length > 0 && (
          <p className={styles.quiet}>Not set up: {formatNames(floor.notSetUp)}. Look at them in the warm-up.</p>
        )
      ) : (
        <Late info={info} floor={floor} studio={studio} mayPlan={mayPlan} />
      )}
      {mayPlan && !info.open && !hasBegun && <Hands info={info} minutes={floor.minutes} />}
      {!hasBegun && isRoundOffered(floor.queue) && (
        <Link href={`/class/${info.id}/round`} className={styles.round}>
          <b>{newcomers} newcomers: set all by landmark first</b>
          {floor.queue.some(({ toMin }) => toMin > 0) && <span>One by one they are not ready by the start.</span>}
        </Link>
      )}
    </>
  )
}

/** The seat of somebody in the queue; a bike that the plan only proposes is drawn as such. */
const BikeOf = ({ item }: { item: QueueItem }) =>
  item.isSeated ? (
    <b>{item.number}</b>
  ) : (
    <b className={styles.proposed} title="Proposed: not placed yet">
      {item.number}
    </b>
  )

/** Why another bike would be better, in a sentence. */
const offerOf = ({ number, offer }: QueueItem): string =>
  offer!.savesMin === null
    ? `Bike ${number} is out of use. Bike ${offer!.number} is free.`
    : `Bike ${offer!.number} is free and saves ${formatMinutes(offer!.savesMin)}.`

function emptyQueue(info: ClassInfo, { roster, waiting }: FloorBefore, hasBegun: boolean): string {
  if (info.open) return 'Tap a free bike and say who sits there.'
  const coming = roster.filter(({ state }) => state !== 'cancelled').length
  if (coming === 0) return 'Nobody is booked yet. Book a rider, take a walk-in, or import a list on the timetable.'
  if (waiting > 0) return `${waiting === 1 ? 'One rider has' : `${waiting} riders have`} no bike yet. Place them.`
  return hasBegun ? 'The class runs. Notes are taken under “During”.' : 'Everybody is ready.'
}

function SetUpButton({ classId, memberId, bikeId }: { classId: string; memberId: string; bikeId: string }) {
  const router = useRouter()
  const { act, busy } = useAction()
  return (
    <Button
      type="primary"
      size="large"
      block
      loading={busy}
      onClick={async () => {
        const done = await act(() => startSetup(memberId, bikeId))
        if (done) router.push(`/set-up/${done.id}?class=${classId}`)
      }}
    >
      Set up
    </Button>
  )
}

function Late({ info, floor, studio, mayPlan }: Pick<Props, 'info' | 'floor' | 'studio' | 'mayPlan'>) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const left = new Set(floor.tiles.flatMap(({ rider }) => (rider?.warmUp ? [rider.id] : [])))
  const open = floor.late.filter(({ memberId }) => !left.has(memberId))
  const [comeEarlier, others] = [
    open.filter(({ comeByMin }) => comeByMin !== null),
    open.filter(({ comeByMin }) => comeByMin === null),
  ]
  const namesOf = (some: readonly Readonly<{ name: string }>[]) => formatNames(some.map(({ name }) => name))
  const toWarmUp = floor.late.filter(({ memberId }) => left.has(memberId))
  if (floor.late.length === 0 && floor.unplaced.length === 0) return null
  const copy = async (text: string) => {
    try {
      await navigator.clipboard.writeText(text)
      message.success('Copied.', 3)
    } catch {
      message.info(text, 12)
    }
  }
  return (
    <section aria-label="Not ready in time">
      <h2>Not ready in time</h2>
      <ul className={styles.late}>
        {floor.unplaced.map(({ memberId, name, why }) => (
          <li key={memberId}>
            <b>{name}</b>
            <p>No bike. {why}</p>
          </li>
        ))}
        {comeEarlier.map(({ memberId, name, comeByMin, why }) => (
          <li key={memberId}>
            <b>{name}</b>
            <p>{why}</p>
            <Button onClick={() => copy(formatComeEarlier(name, info.title, clockAt(info, comeByMin!), studio))}>
              Copy: come by {clockAt(info, comeByMin!)}
            </Button>
          </li>
        ))}
        {others.length > 0 && (
          <li>
            <b>{namesOf(others)}</b>
            <p>Too few people are setting up. Look at them in the warm-up.</p>
          </li>
        )}
        {toWarmUp.length > 0 && (
          <li>
            <b>{namesOf(toWarmUp)}</b>
            <p>Left to the warm-up.</p>
          </li>
        )}
      </ul>
      {mayPlan && open.length > 0 && (
        <Button
          size="large"
          block
          loading={busy}
          className={styles.ways}
          onClick={async () => {
            const done = await act(() =>
              leaveToWarmUp(
                info.id,
                open.map(({ memberId }) => memberId),
                true,
              ),
            )
            if (done) router.refresh()
          }}
        >
          Leave {open.length === 1 ? 'one' : open.length} to the warm-up
        </Button>
      )}
    </section>
  )
}

function Hands({ info, minutes }: { info: ClassInfo; minutes: FloorBefore['minutes'] }) {
  const router = useRouter()
  const { act } = useAction()
  const [hands, setHands] = useState(info.hands)
  const [doors, setDoors] = useState(info.doorsMin)
  const save = async (nextHands: number, nextDoors: number) => {
    const done = await act(() => changeHands(info.id, nextHands, nextDoors))
    if (done) router.refresh()
  }
  return (
    <div className={styles.hands}>
      <label>
        People setting up
        <NumberField
          min={1}
          max={20}
          value={hands}
          width={72}
          onChange={(value) => {
            setHands(Math.round(value))
            void save(Math.round(value), doors)
          }}
        />
      </label>
      <label>
        Doors open
        <NumberField
          min={0}
          max={180}
          step={5}
          unit="min"
          value={doors}
          width={104}
          onChange={(value) => {
            setDoors(Math.round(value))
            void save(hands, Math.round(value))
          }}
        />
        before
      </label>
      <span>
        Here a first set-up takes about {formatMinutes(minutes.new)}, a second look {Math.round(minutes.recheck)},
        carrying numbers over {Math.round(minutes.translate)}.
      </span>
    </div>
  )
}

function Chosen({ info, floor, tile, close, free, maySetUp, change: changePlaces }: Props) {
  const [busy, setBusy] = useState(false)
  const rider = tile!.rider!
  const listed = floor.roster.find(({ memberId }) => memberId === rider.id)
  const change = async (say: string, change: Parameters<typeof changeRiderOf>[2]) => {
    setBusy(true)
    await changePlaces(say, () => changeRiderOf(info.id, rider.id, change))
    setBusy(false)
  }
  return (
    <section className={styles.now} aria-label={`Bike ${tile!.number}`}>
      <Button className={styles.close} type="text" icon={<CloseOutlined />} aria-label="Close" onClick={close} />
      <p>{tile!.type}</p>
      <p className={styles.who}>
        <b>{tile!.number}</b> {rider.name} {tile!.stop && <StopMark why={tile!.stop} />}
      </p>
      {tile!.stop && (
        <p>
          {capitalized(tile!.stop)}. Refer first. <Link href={`/riders/${rider.id}/reasons`}>Open the complaint</Link>
        </p>
      )}
      {rider.need !== 'none' && <p>{NEED_TITLE[rider.need]}</p>}
      {rider.because.length > 0 && (
        <ul className={styles.because} aria-label="Why here">
          {rider.because.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      )}
      {maySetUp && <SetUpButton classId={info.id} memberId={rider.id} bikeId={tile!.bikeId} />}
      <div className={styles.ways}>
        {listed && listed.state === 'booked' && (
          <Button
            size="large"
            type="primary"
            ghost
            loading={busy}
            onClick={() => change(`${rider.name} is here.`, { state: 'here' })}
          >
            Is here
          </Button>
        )}
        {listed && (
          <Button
            size="large"
            loading={busy}
            onClick={() =>
              change(rider.pinned ? `${rider.name} may move again.` : `${rider.name} stays on ${tile!.number}.`, {
                pinnedBikeId: rider.pinned ? null : tile!.bikeId,
              })
            }
          >
            {rider.pinned ? 'Unpin' : 'Pin to this bike'}
          </Button>
        )}
        {listed && (
          <Button
            size="large"
            loading={busy}
            onClick={() => {
              const row = listed.rowWish === 'front' ? 'back' : listed.rowWish ? null : 'front'
              void change(`${rider.name}: ${row ?? 'any'} row.`, { rowWish: row })
            }}
          >
            Row: {listed.rowWish ?? 'any'}
          </Button>
        )}
        <Button size="large" href={`/riders/${rider.id}`}>
          Rider’s page
        </Button>
        <Button size="large" href={`/class/${info.id}/bike/${tile!.bikeId}`}>
          Show on this phone
        </Button>
        {listed ? (
          <Button
            size="large"
            danger
            loading={busy}
            onClick={async () => {
              await change(`${rider.name} is not coming.`, { state: 'cancelled', pinnedBikeId: null })
              close()
            }}
          >
            Not coming
          </Button>
        ) : (
          <Button
            size="large"
            danger
            loading={busy}
            onClick={() => {
              free(tile!)
              close()
            }}
          >
            Free this bike
          </Button>
        )}
      </div>
    </section>
  )
}
