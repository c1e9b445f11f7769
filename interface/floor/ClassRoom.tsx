'use client'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { signNamed, signSaid, type Sign } from '@/core/watch/signs'
import { note, sit, unnote, type Told } from './actions'
import styles from './floor.module.css'
import type { FloorBike, FloorNote, Side } from './floorTypes'
import { NoteSheet } from './NoteSheet'
import { WhoSheet } from './WhoSheet'

type Props = Readonly<{ bikes: readonly FloorBike[]; members: readonly { id: string; name: string }[]; notes: readonly FloorNote[] }>

/** Today's bikes: tap one to say who sits there, or to note what is seen. A tap counts at once and can be undone. */
export function ClassRoom({ bikes, members, notes: stored }: Props) {
  const router = useRouter()
  const { message } = App.useApp()
  const [added, setAdded] = useState<readonly FloorNote[]>([])
  const [gone, setGone] = useState<ReadonlySet<string>>(new Set())
  const [openBike, setOpenBike] = useState<string | null>(null)
  const [who, setWho] = useState<string | null>(null)
  const notes = [...stored.filter((n) => !added.some((a) => a.id === n.id)), ...added].filter((n) => !gone.has(n.id))
  const noting = bikes.find((bike) => bike.id === openBike && bike.rider)
  const seating = bikes.find((bike) => bike.id === who)

  async function told(word: () => Promise<Told>): Promise<boolean> {
    try {
      const answer = await word()
      if (answer.outcome === 'kept') return true
      message.error(`Not kept: ${answer.say}.`, 6)
    } catch {
      message.error({ content: 'No network. It was not kept; tap again when it is back.', duration: 6 })
    }
    return false
  }

  async function seat(bikeId: string, memberId: string | null) {
    setWho(null)
    setOpenBike(null)
    if (await told(() => sit(crypto.randomUUID(), bikeId, memberId))) router.refresh()
  }

  async function see(bike: FloorBike, sign: Sign, side: Side) {
    const made: FloorNote = { id: crypto.randomUUID(), memberId: bike.rider!.id, sign: sign.sign, side }
    setAdded((all) => [...all, made])
    setOpenBike(null)
    const kept = await told(() => note(made.id, made.memberId, bike.id, made.sign, side))
    if (!kept) return setAdded((all) => all.filter((n) => n.id !== made.id))
    message.open({
      type: 'success',
      duration: 6,
      content: (
        <span className={styles.kept}>
          <span>
            {bike.rider!.name}: {noteSaid(made)}. Say: “{sign.cue}”
          </span>
          <Button
            onClick={() => {
              setGone((all) => new Set([...all, made.id]))
              message.destroy()
              told(() => unnote(made.id))
            }}
          >
            Undo
          </Button>
        </span>
      ),
    })
  }

  return (
    <>
      <h1 className={styles.title}>Class</h1>
      <p className={styles.lead}>{bikes.some((b) => b.rider) ? 'Tap a rider to note what you see.' : 'Nobody sits here yet. Tap a bike and say who does; it holds until midnight.'}</p>
      <ul className={styles.bikes}>
        {bikes.map((bike) => {
          const seen = notes.filter((n) => n.memberId === bike.rider?.id)
          return (
            <li key={bike.id} className={bike.rider ? styles.taken : styles.free}>
              <button type="button" className={styles.tile} disabled={bike.faulty && !bike.rider} onClick={() => (bike.rider ? setOpenBike(bike.id) : setWho(bike.id))}>
                <span className={styles.number}>{bike.number}</span>
                <span className={styles.type}>{bike.type}</span>
                <span className={styles.rider}>{bike.rider?.name ?? (bike.faulty ? 'Out of use' : 'Who sits here?')}</span>
                {bike.rider && <span className={styles.line}>{bike.numbers ?? (bike.elsewhere ? `numbers are for ${bike.elsewhere}` : 'no numbers yet')}</span>}
                {seen.length > 0 && <span className={styles.seen}>{seen.map(noteSaid).join('; ')}</span>}
              </button>
            </li>
          )
        })}
      </ul>
      <NoteSheet
        bike={noting ?? null}
        close={() => setOpenBike(null)}
        onSee={see}
        onWho={(bikeId) => {
          setOpenBike(null)
          setWho(bikeId)
        }}
      />
      <WhoSheet key={who ?? ''} bike={seating ?? null} members={members} seated={new Set(bikes.flatMap((b) => (b.rider ? [b.rider.id] : [])))} close={() => setWho(null)} onSit={seat} />
    </>
  )
}

/** "knees out, left" */
function noteSaid({ sign, side }: FloorNote): string {
  const known = signNamed(sign)
  if (!known) return sign
  return known.sided && side !== 'both' ? `${signSaid(known)}, ${side}` : signSaid(known)
}
