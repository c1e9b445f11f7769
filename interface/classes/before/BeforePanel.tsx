'use client'
import { CloseOutlined } from '@ant-design/icons'
import { Button } from 'antd'
import { useState } from 'react'
import { capitalized } from '@/core/messages/words/phrases'
import { NEED_TITLE } from '@/core/messages/classes/planning'
import type { FloorTile } from '@/server/pages/classes/floor'
import type { RosterChange } from '@/server/classes/roster'
import { StopMark } from '../../kit/StopMark'
import { command, type CommandAnswer } from '../../commands/command'
import { RiderMoves } from '../../setups/move/RiderMoves'
import { Link } from '../../kit/Link'
import styles from './before.module.css'
import { BeforeQueue, type BeforeQueueProps } from './BeforeQueue'
import { SetUpButton } from './SetUpButton'

type Props = BeforeQueueProps &
  Readonly<{
    tile: FloorTile | undefined
    close: () => void
    free: (tile: FloorTile) => void
    /** Makes a change of the places, with its message and Undo; false where it was refused. */
    change: (text: string, action: () => Promise<CommandAnswer<'places.changeRider'>>) => Promise<boolean>
  }>

/** Beside the floor: the bike that was tapped, or who is set up next. */
export function BeforePanel(props: Props) {
  const { tile } = props
  return (
    <aside className={`${styles.panel} no-print`} data-chosen={tile?.rider ? '' : undefined}>
      {tile?.rider ? <Chosen {...props} /> : <BeforeQueue {...props} />}
    </aside>
  )
}

function Chosen({ info, floor, tile, close, free, maySetUp, change: changePlaces }: Props) {
  const [busy, setBusy] = useState(false)
  const rider = tile!.rider!
  // Shows a starter of this type beside the marks, where it is raised.
  const plans = tile!.plans.filter(({ isHere }) => !isHere || !maySetUp || !tile!.numbers)
  const listed = floor.roster.find(({ memberId }) => memberId === rider.id)
  const change = async (text: string, change: RosterChange) => {
    setBusy(true)
    await changePlaces(text, () => command('places.changeRider', { classId: info.id, memberId: rider.id, change }))
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
          {capitalized(tile!.stop)}. Refer first. <Link href={`/riders/${rider.id}`}>Open the rider</Link>
        </p>
      )}
      {rider.need !== 'none' && <p>{NEED_TITLE[rider.need]}</p>}
      {plans.length > 0 && (
        <ul className={styles.plans} aria-label="Planned, and due">
          {plans.map(({ text }) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
      {rider.because.length > 0 && (
        <ul className={styles.because} aria-label="Why here">
          {rider.because.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      )}
      {maySetUp && <SetUpButton type="primary" block classId={info.id} memberId={rider.id} bikeId={tile!.bikeId} />}
      {maySetUp && tile!.numbers && (
        <RiderMoves key={`${rider.id} ${tile!.bikeId}`} memberId={rider.id} bikeId={tile!.bikeId} classId={info.id} />
      )}
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
