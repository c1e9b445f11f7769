'use client'
import { PrinterOutlined } from '@ant-design/icons'
import { App, Button, Modal } from 'antd'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { Bike, BikeType } from '@/core/bike/bike'
import type { Label, Marks } from '@/core/conventions'
import type { RecommendRequest } from '@/core/recommend/request'
import { capitalized, formatNaturalFrequency } from '@/core/messages/phrases'
import { useRefreshAfterDelivery } from '../outbox/useRefreshAfterDelivery'
import { startSetup } from '../setup/actions'
import { useRecommendation } from '../shared/useRecommendation'
import { FromTape } from './FromTape'
import { OtherBikes } from './OtherBikes'
import styles from './rider.module.css'

type NumbersOnBike = Readonly<{ bikeType: BikeType; bike: Bike; marks: Marks }>
type SetupSummary = Readonly<{
  id: string
  line: string
  numbers: readonly { title: string; text: string }[]
  bike: string
  date: string
  by: string
  sure: string
  shoes: string | null
}>
type NoteSummary = Readonly<{
  id: string
  seen: string
  side: 'left' | 'right' | 'both' | null
  when: string
  by: string
  bike: number
  cue: string
}>
type Props = Readonly<{
  member: Readonly<{ id: string; name: string }>
  maySetUp: boolean
  setups: readonly SetupSummary[]
  /** What the latest set-up rests on, to work the chance out of, and the seat height it saved. */
  request: RecommendRequest | null
  seatHeight: Label | null
  /** The latest numbers on their bike; null without numbers. */
  from: NumbersOnBike | null
  types: readonly BikeType[]
  /** The bike has changed since: what to say of it, or null. */
  changed: string | null
  open: readonly { id: string; text: string }[]
  bikes: readonly { id: string; number: number; type: string }[]
  /** Null where this person's role sees none. */
  notes: readonly NoteSummary[] | null
}>

/** One rider: the numbers large enough to read from the next bike, then what was seen, then how it came to be. */
export function RiderView({
  member,
  maySetUp,
  setups,
  request,
  seatHeight,
  from,
  types,
  changed,
  open,
  bikes,
  notes,
}: Props) {
  useRefreshAfterDelivery()
  const [choosing, setChoosing] = useState<'setUp' | 'told' | null>(null)
  const [taping, setTaping] = useState(false)
  const [latest, ...earlier] = setups
  return (
    <article>
      <header className={styles.head}>
        <h1>{member.name}</h1>
        {latest && (
          <Button
            className="no-print"
            size="large"
            icon={<PrinterOutlined />}
            onClick={() => window.print()}
            aria-label="Print"
            title="Print"
          />
        )}
        {maySetUp && types.length > 0 && (
          <Button className="no-print" size="large" onClick={() => setTaping(true)}>
            Own bike’s tape
          </Button>
        )}
        {maySetUp && (
          <Button className="no-print" size="large" onClick={() => setChoosing('told')}>
            Knows the numbers
          </Button>
        )}
        {maySetUp && (
          <Button
            className="no-print"
            type={latest ? 'default' : 'primary'}
            size="large"
            onClick={() => setChoosing('setUp')}
          >
            {latest ? 'New set-up' : 'Set up now'}
          </Button>
        )}
      </header>
      {open.map((o) => (
        <p key={o.id} className={styles.open}>
          <span>A set-up was left open at {o.text}.</span>
          <Link href={`/set-up/${o.id}`}>Go on with it</Link>
        </p>
      ))}
      {changed && <p className={styles.open}>{changed}</p>}
      {latest ? (
        <section className={styles.card} aria-label="Numbers">
          <p className={styles.bike}>{latest.bike}</p>
          <dl className={styles.numbers}>
            {latest.numbers.map(({ title, text }) => (
              <div key={title}>
                <dt>{title}</dt>
                <dd>{text}</dd>
              </div>
            ))}
          </dl>
          <p className={styles.facts}>
            {latest.date}, by {latest.by}
            {latest.shoes && `, ${latest.shoes}`}
            <br />
            {capitalized(latest.sure)}
            {request && seatHeight && <KneeChance request={request} seatHeight={seatHeight} />}
          </p>
        </section>
      ) : (
        <p className={styles.empty}>
          No numbers yet. A set-up takes about six minutes and can stop anywhere; nothing is lost.
        </p>
      )}
      {from && types.length > 1 && <OtherBikes from={from} types={types} request={request} />}
      {notes && (
        <section className={styles.part}>
          <h2>Seen in class</h2>
          {notes.length === 0 ? (
            <p className={styles.quiet}>Nothing noted so far. Notes are made on the class page, by tapping the bike.</p>
          ) : (
            <ul className={styles.notes}>
              {notes.map((note) => (
                <li key={note.id}>
                  <p className={styles.seen}>
                    {note.seen}
                    {note.side && <span> {note.side === 'both' ? 'both sides' : note.side}</span>}
                  </p>
                  <p className={styles.cue}>Say: “{note.cue}”</p>
                  <p className={styles.quiet}>
                    {note.when}, bike {note.bike}, {note.by}
                  </p>
                </li>
              ))}
            </ul>
          )}
        </section>
      )}
      {earlier.length > 0 && (
        <section className={styles.part}>
          <h2>Earlier set-ups</h2>
          <ul className={styles.earlier}>
            {earlier.map((setup) => (
              <li key={setup.id}>
                <b>{setup.line}</b>
                <span>{setup.bike}</span>
                <span>
                  {setup.date}, {setup.by}
                </span>
                <span>{setup.sure}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className={styles.caution}>
        A comfort set-up, not medical advice. Sharp, growing or lasting pain, numbness, swelling, chest pain or
        dizziness: stop, and send the rider to a licensed clinician.
      </p>
      {taping && <FromTape types={types} close={() => setTaping(false)} />}
      <ChooseBike memberId={member.id} bikes={bikes} choosing={choosing} close={() => setChoosing(null)} />
    </article>
  )
}

/** How sure the saved seat is: worked out on this device, after the page is there. */
function KneeChance({ request, seatHeight }: { request: RecommendRequest; seatHeight: Label }) {
  const { answer } = useRecommendation(request)
  const found = answer?.chances.seatHeight?.find((c) => c.label === seatHeight)
  return found ? <>; the knee is right here for {formatNaturalFrequency(found.chance)} riders like this one</> : null
}

function ChooseBike({
  memberId,
  bikes,
  choosing,
  close,
}: {
  memberId: string
  bikes: Props['bikes']
  choosing: 'setUp' | 'told' | null
  close: () => void
}) {
  const router = useRouter()
  const { message } = App.useApp()
  const [busy, setBusy] = useState('')
  async function start(bikeId: string) {
    setBusy(bikeId)
    try {
      const started = await startSetup(memberId, bikeId)
      if (started.outcome === 'kept') return router.push(`/set-up/${started.id}${choosing === 'told' ? '?told=1' : ''}`)
      message.error(started.say, 6)
    } catch {
      message.error('The studio’s server cannot be reached. Try again.', 6)
    }
    setBusy('')
  }
  return (
    <Modal open={choosing !== null} onCancel={close} footer={null} title="At which bike?" width={720}>
      <div className={styles.bikes}>
        {bikes.map(({ id, number, type }) => (
          <button key={id} type="button" disabled={busy !== ''} aria-busy={busy === id} onClick={() => start(id)}>
            <b>{number}</b>
            {type}
          </button>
        ))}
      </div>
    </Modal>
  )
}
