'use client'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useEffect, useMemo, useState } from 'react'
import { signNamed, formatSign, type Sign } from '@/core/watch/signs'
import { useOutbox } from '../outbox/OutboxProvider'
import { useRefreshAfterDelivery } from '../outbox/useRefreshAfterDelivery'
import { OutboxTrouble } from '../outbox/OutboxTrouble'
import { assignBike } from './actions'
import styles from './classView.module.css'
import type { ClassBike, ClassNote, Side } from './classTypes'
import { NoteDrawer } from './NoteDrawer'
import { RiderPicker } from './RiderPicker'

type Props = Readonly<{
  /** Whether this person's role takes notes; without, a tap on a rider says who sits there. */
  mayNote: boolean
  bikes: readonly ClassBike[]
  notes: readonly ClassNote[]
}>

/** The queue of what is noted in a class: its order is kept. */
const QUEUE = 'class'

/** What of the class is printed, or taken along. */
const SHEETS = [
  { file: 'sheet.pdf', name: 'Sheet' },
  { file: 'tags.pdf', name: 'Bike tags' },
  { file: 'sheet.csv', name: 'List' },
] as const

/** Today's bikes: tap one to say who sits there, or to note what is seen. A tap counts at once and can be undone. */
export function ClassView({ mayNote, bikes, notes: stored }: Props) {
  const router = useRouter()
  const { message } = App.useApp()
  const { entries, enqueue } = useOutbox()
  useRefreshAfterDelivery()
  /** Noted and taken back on this page: shown until the page is made anew, sent or not. */
  const [added, setAdded] = useState<readonly ClassNote[]>([])
  const [gone, setGone] = useState<ReadonlySet<string>>(new Set())
  const [openBike, setOpenBike] = useState<string | null>(null)
  const [who, setWho] = useState<string | null>(null)
  const left = useMemo(() => (entries ?? []).filter((e) => e.queue === QUEUE), [entries])
  // What was seen waiting here stays as it is shown when it leaves the device: the page's own notes are older than
  // that.
  useEffect(() => {
    const waiting = left.flatMap(({ entry, state }): ClassNote[] =>
      entry.op === 'addNote' && state !== 'refused'
        ? [{ id: entry.id, memberId: entry.memberId, sign: entry.sign, side: entry.side }]
        : [],
    )
    const takenBack = left.flatMap(({ entry }) => (entry.op === 'withdrawNote' ? [entry.noteId] : []))
    const refused = new Set(left.flatMap(({ entry, state }) => (state === 'refused' ? [entry.id] : [])))
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what left the store is known only here
    setAdded((all) => [...all.filter((n) => !refused.has(n.id) && !waiting.some((w) => w.id === n.id)), ...waiting])
    if (takenBack.length > 0) setGone((all) => new Set([...all, ...takenBack]))
  }, [left])
  const notes = [...new Map([...stored, ...added].map((n) => [n.id, n])).values()].filter((n) => !gone.has(n.id))
  const noting = bikes.find((bike) => bike.id === openBike && bike.rider)
  const assigned = bikes.find((bike) => bike.id === who)

  async function assign(bikeId: string, memberId: string | null) {
    setWho(null)
    setOpenBike(null)
    try {
      const answer = await assignBike(crypto.randomUUID(), bikeId, memberId)
      if (answer.outcome === 'kept') return router.refresh()
      message.error(`Not kept: ${answer.say}.`, 6)
    } catch {
      message.error('No network. Who sits where was not kept; tap again when it is back.', 6)
    }
  }

  function see(bike: ClassBike, sign: Sign, side: Side) {
    const made: ClassNote = { id: crypto.randomUUID(), memberId: bike.rider!.id, sign: sign.sign, side }
    setAdded((all) => [...all, made])
    setOpenBike(null)
    void enqueue(QUEUE, [
      { op: 'addNote', id: made.id, memberId: made.memberId, bikeId: bike.id, sign: made.sign, side },
    ])
    message.open({
      type: 'success',
      duration: 6,
      content: (
        <span className={styles.kept}>
          <span>
            {bike.rider!.name}: {formatNote(made)}. Say: “{sign.cue}”
          </span>
          <Button onClick={() => withdraw(made.id)}>Undo</Button>
        </span>
      ),
    })
  }

  function withdraw(noteId: string) {
    setGone((all) => new Set([...all, noteId]))
    message.destroy()
    void enqueue(QUEUE, [{ op: 'withdrawNote', noteId }])
  }

  return (
    <>
      <div className={styles.head}>
        <h1 className={styles.title}>Class</h1>
        <div className={`${styles.sheets} no-print`}>
          {SHEETS.map(({ file, name }) => (
            <Button key={file} size="large" href={`/api/cards/class/${file}`} target="_blank">
              {name}
            </Button>
          ))}
        </div>
      </div>
      <p className={styles.lead}>
        {bikes.some((b) => b.rider)
          ? mayNote
            ? 'Tap a rider to note what you see.'
            : 'Tap a bike to say who sits there; it holds until midnight.'
          : 'Nobody sits here yet. Tap a bike and say who does; it holds until midnight.'}
      </p>
      <OutboxTrouble queue={QUEUE} />
      <ul className={styles.bikes}>
        {bikes.map((bike) => {
          const seen = notes.filter((n) => n.memberId === bike.rider?.id)
          return (
            <li key={bike.id} className={bike.rider ? styles.taken : styles.free}>
              <button
                type="button"
                className={styles.tile}
                disabled={bike.faulty && !bike.rider}
                onClick={() => (bike.rider && mayNote ? setOpenBike(bike.id) : setWho(bike.id))}
              >
                <span className={styles.number}>{bike.number}</span>
                <span className={styles.type}>{bike.type}</span>
                <span className={styles.rider}>
                  {bike.rider?.name ?? (bike.faulty ? 'Out of use' : 'Who sits here?')}
                </span>
                {bike.rider && (
                  <span className={styles.line}>
                    {bike.numbers ?? (bike.elsewhere ? `numbers are for ${bike.elsewhere}` : 'no numbers yet')}
                    {bike.remark && <small>{bike.remark}</small>}
                  </span>
                )}
                {seen.length > 0 && <span className={styles.seen}>{seen.map(formatNote).join('; ')}</span>}
              </button>
            </li>
          )
        })}
      </ul>
      <NoteDrawer
        bike={noting ?? null}
        close={() => setOpenBike(null)}
        onSee={see}
        onWho={(bikeId) => {
          setOpenBike(null)
          setWho(bikeId)
        }}
      />
      <RiderPicker
        key={who ?? ''}
        linked={!mayNote}
        bike={assigned ?? null}
        seated={new Set(bikes.flatMap((b) => (b.rider ? [b.rider.id] : [])))}
        close={() => setWho(null)}
        onSit={assign}
      />
    </>
  )
}

/** "knees out, left" */
function formatNote({ sign, side }: ClassNote): string {
  const known = signNamed(sign)
  if (!known) return sign
  return known.sided && side !== 'both' ? `${formatSign(known)}, ${side}` : formatSign(known)
}
