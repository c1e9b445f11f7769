'use client'
import { isRoundOffered } from '@/core/planning/round'
import { CloseOutlined } from '@ant-design/icons'
import { App, Button, InputNumber } from 'antd'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { formatComeEarlier, NEED_TITLE, NEED_WORD } from '@/core/messages/planning'
import type { FloorBefore, FloorTile, QueueItem } from '@/server/classes/floor'
import { startSetup } from '../setup/actions'
import { clockTime } from '../shared/clockTime'
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
}>

/** Beside the floor: the bike that was tapped, or who is set up next. */
export function BeforePanel(props: Props) {
  const { tile } = props
  return (
    <aside className={`${styles.panel} no-print`}>{tile?.rider ? <Chosen {...props} /> : <Queue {...props} />}</aside>
  )
}

/** A minute of the plan on the studio's clock, of the studio. */
const clockAt = ({ startMs, timeZone }: ClassInfo, minute: number): string =>
  clockTime(startMs + minute * 60_000, timeZone)

function Queue({ info, floor, studio, mayPlan, maySetUp, choose }: Props) {
  const { nowMs } = useClassClock()
  const minute = (nowMs - info.startMs) / 60_000
  const [next, ...rest] = floor.queue
  const roomOf = (item: QueueItem) => <b>{item.number}</b>
  const coming = floor.roster.filter(({ state }) => state !== 'cancelled').length
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
            <b>{next.number}</b> {next.name}
          </p>
          {maySetUp && <SetUpButton classId={info.id} memberId={next.memberId} bikeId={next.bikeId} />}
        </section>
      ) : (
        <p className={styles.quiet}>
          {info.open
            ? 'Tap a free bike and say who sits there.'
            : coming === 0
              ? 'Nobody is booked yet. Book a rider, take a walk-in, or bring in a list on the timetable.'
              : floor.waiting > 0
                ? 'The places have not been worked out yet.'
                : 'Everybody is ready.'}
        </p>
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
                {roomOf(item)}
                <button type="button" onClick={() => choose(item.bikeId)}>
                  {item.name}
                </button>
                <em>
                  {NEED_WORD[item.need]}, {Math.max(1, Math.round(item.toMin - item.fromMin))} min
                </em>
              </li>
            ))}
          </ol>
        </section>
      )}
      <Late info={info} floor={floor} studio={studio} mayPlan={mayPlan} />
      {mayPlan && !info.open && <Hands info={info} minutes={floor.minutes} />}
      {isRoundOffered(floor.queue) && (
        <Link href={`/class/${info.id}/round`}>
          <b>{floor.queue.filter(({ need }) => need === 'new').length} newcomers: go round</b>
          {floor.queue.some(({ toMin }) => toMin > 0) && <span> The queue runs past the start.</span>}
        </Link>
      )}
    </>
  )
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
        {floor.late.map(({ memberId, name, comeByMin, why }) => (
          <li key={memberId}>
            <b>{name}</b>
            <p>{left.has(memberId) ? 'Left to the warm-up.' : why}</p>
            {comeByMin !== null && !left.has(memberId) && (
              <Button onClick={() => copy(formatComeEarlier(name, info.title, clockAt(info, comeByMin), studio))}>
                Copy: come by {clockAt(info, comeByMin)}
              </Button>
            )}
          </li>
        ))}
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
        Pairs of hands
        <InputNumber
          min={1}
          max={20}
          value={hands}
          style={{ width: 72 }}
          onChange={(value) => {
            if (value === null) return
            setHands(value)
            void save(value, doors)
          }}
        />
      </label>
      <label>
        Doors
        <InputNumber
          min={0}
          max={180}
          step={5}
          value={doors}
          style={{ width: 78 }}
          onChange={(value) => {
            if (value === null) return
            setDoors(value)
            void save(hands, value)
          }}
        />
        min before
      </label>
      <span>
        Here a first set-up takes {minutes.new} min, a second look {minutes.recheck}, carrying over {minutes.translate}.
      </span>
    </div>
  )
}

function Chosen({ info, floor, tile, close, free, maySetUp }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  const rider = tile!.rider!
  const listed = floor.roster.find(({ memberId }) => memberId === rider.id)
  const change = async (change: Parameters<typeof changeRiderOf>[2]) => {
    const done = await act(() => changeRiderOf(info.id, rider.id, change))
    if (done) router.refresh()
  }
  return (
    <section className={styles.now} aria-label={`Bike ${tile!.number}`}>
      <Button className={styles.close} type="text" icon={<CloseOutlined />} aria-label="Close" onClick={close} />
      <p>{tile!.type}</p>
      <p className={styles.who}>
        <b>{tile!.number}</b> {rider.name}
      </p>
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
          <Button size="large" type="primary" ghost loading={busy} onClick={() => change({ state: 'here' })}>
            Is here
          </Button>
        )}
        {listed && (
          <Button
            size="large"
            loading={busy}
            onClick={() => change({ pinnedBikeId: rider.pinned ? null : tile!.bikeId })}
          >
            {rider.pinned ? 'Unpin' : 'Pin here'}
          </Button>
        )}
        {listed && (
          <Button
            size="large"
            loading={busy}
            onClick={() => change({ rowWish: listed.rowWish === 'front' ? 'back' : listed.rowWish ? null : 'front' })}
          >
            Row: {listed.rowWish ?? 'any'}
          </Button>
        )}
        <Button size="large" href={`/riders/${rider.id}`}>
          Rider’s page
        </Button>
        <Button size="large" href={`/class/${info.id}/bike/${tile!.bikeId}`}>
          Fill this phone
        </Button>
        {listed ? (
          <Button
            size="large"
            danger
            loading={busy}
            onClick={async () => {
              await change({ state: 'cancelled', pinnedBikeId: null })
              close()
            }}
          >
            Called off
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
            Nobody: free this bike
          </Button>
        )}
      </div>
    </section>
  )
}
