'use client'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { capitalized } from '@/core/messages/words/phrases'
import { formatComeEarlier, formatMinutes, formatNames, NEED_TITLE, NEED_WORD } from '@/core/messages/classes/planning'
import { isRoundOffered } from '@/core/classes/planning/round'
import type { FloorBefore, QueueItem } from '@/server/pages/classes/floor'
import { clockTime } from '../../kit/clockTime'
import { NumberField } from '../../kit/NumberField'
import { StopMark } from '../../kit/StopMark'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import styles from './before.module.css'
import type { ClassInfo } from '../classTypes'
import { SetUpButton } from './SetUpButton'
import { useClassClock } from '../useClassClock'
import { Link } from '../../kit/Link'

export type BeforeQueueProps = Readonly<{
  info: ClassInfo
  floor: FloorBefore
  studio: string
  mayPlan: boolean
  maySetUp: boolean
  choose: (bikeId: string) => void
  /** Pins a rider to a bike. */
  moveTo: (memberId: string, name: string, bikeId: string, number: number) => void
}>

/** A minute of the plan on the studio's clock, of the studio. */
const clockAt = ({ startMs, timeZone }: ClassInfo, minute: number): string =>
  clockTime(startMs + minute * 60_000, timeZone)

/** Who is set up next under the studio's clock, who is late, and what else leads to all being ready. */
export function BeforeQueue({ info, floor, studio, mayPlan, maySetUp, choose, moveTo }: BeforeQueueProps) {
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
          {maySetUp && (
            <SetUpButton type="primary" block classId={info.id} memberId={next.memberId} bikeId={next.bikeId} />
          )}
        </section>
      ) : (
        <p className={styles.quiet}>{emptyQueue(info, floor, nowMs)}</p>
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

function emptyQueue(info: ClassInfo, { roster, waiting, totalCost }: FloorBefore, nowMs: number): string {
  if (info.open) return 'Tap a free bike and say who sits there.'
  const coming = roster.filter(({ state }) => state !== 'cancelled').length
  if (coming === 0) return 'Nobody is booked yet. Book a rider, take a walk-in, or import a list on the timetable.'
  if (waiting > 0) return `${waiting === 1 ? 'One rider has' : `${waiting} riders have`} no bike yet. Place them.`
  if (nowMs >= info.endMs) return 'The class is over. What came up stands under “After”.'
  if (nowMs >= info.startMs) return 'The class runs. Take notes under “During”.'
  return totalCost === null ? 'The queue could not be computed just now. The page tries again.' : 'Everybody is ready.'
}

function Late({ info, floor, studio, mayPlan }: Pick<BeforeQueueProps, 'info' | 'floor' | 'studio' | 'mayPlan'>) {
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
              command('places.leaveToWarmUp', {
                classId: info.id,
                memberIds: open.map(({ memberId }) => memberId),
                warmUp: true,
              }),
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
    const done = await act(() =>
      command('classes.changeHands', { classId: info.id, hands: nextHands, doorsMin: nextDoors }),
    )
    if (done) router.refresh()
  }
  return (
    <div className={styles.hands}>
      <label>
        People setting up
        <NumberField
          min={1}
          max={20}
          whole
          value={hands}
          width={72}
          onChange={(value) => {
            setHands(value)
            void save(value, doors)
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
          whole
          value={doors}
          width={104}
          onChange={(value) => {
            setDoors(value)
            void save(hands, value)
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
