'use client'
import Link from 'next/link'
import { useMemo, useState } from 'react'
import { blockAt, type Posture } from '@/core/classPlan/blocks'
import { REMINDER_TEXT, reminderAt } from '@/core/classPlan/reminder'
import { isOpen, lastLooks, numbersLookedAt, type ClassEntry, type NoteState } from '@/core/watch/classState'
import { REFERRAL } from '@/core/watch/comfort'
import type { ConsoleProposal } from '@/core/watch/console'
import { coverage, minutesSince, nextToLook, type WatchedBike } from '@/core/watch/coverage'
import { formatConsoleProposal } from '@/core/messages/watch'
import type { WatchData } from '@/server/pages/watch'
import { FloorRows } from '../floor/FloorRows'
import { useKeptPage } from '../offline/keepPage'
import { OutboxTrouble } from '../outbox/OutboxTrouble'
import { useRefresh } from '../shared/useRefresh'
import { command } from '../commands/command'
import { ClassHead } from './ClassHead'
import type { ClassInfo } from './classTypes'
import { NotePanel } from './NotePanel'
import { RoomCuePanel } from './RoomCuePanel'
import { useClassClock } from './useClassClock'
import { useConsoles } from './useConsoles'
import { CLASS_QUEUE, useWatch } from './useWatch'
import { useWakeLock } from './useWakeLock'
import { WatchTile } from './WatchTile'
import styles from './watch.module.css'

/** During a class: the room on one screen. Tap a bike, the region, what is seen; it counts at once. */
export function WatchView({ info, data }: { info: ClassInfo; data: WatchData }) {
  const refreshPlaces = useRefresh()
  const { state, write } = useWatch(info.id, data.state, refreshPlaces)
  const { nowMs } = useClassClock()
  useWakeLock()
  useKeptPage(`/class/${info.id}/watch`)
  const [chosen, setChosen] = useState<string | null>(null)
  const [inRoom, setInRoom] = useState(false)
  /** Said by hand: it holds for the block it was said in. */
  const [said, setSaid] = useState<Readonly<{ posture: Posture; blockId: string | undefined }> | null>(null)
  /** The latest tap: it can be taken back until the next one. */
  const [last, setLast] = useState<string | null>(null)
  const now = nowMs || info.startMs
  const minute = Math.floor((now - info.startMs) / 60_000)
  const block = info.open ? null : blockAt(info.blocks, (now - info.startMs) / 60_000)
  const reminder = info.open ? null : reminderAt(info.blocks, minute)
  const posture = (said?.blockId === block?.id ? said?.posture : undefined) ?? block?.posture ?? null

  const looks = useMemo(() => lastLooks(state), [state])
  const checked = useMemo(() => numbersLookedAt(state.looks), [state.looks])
  const watched = useMemo(
    () =>
      data.bikes
        .filter(({ rider }) => rider)
        .map(({ bikeId, xM, yM, rider, watchFor }): WatchedBike => ({
          id: bikeId,
          xM,
          yM,
          lookedAtMs: looks.get(rider!.id) ?? null,
          watchFor,
        })),
    [data.bikes, looks],
  )
  const startMs = info.open ? now : info.startMs
  const lastLooked = watched.reduce<WatchedBike | null>(
    (best, bike) => ((bike.lookedAtMs ?? -1) > (best?.lookedAtMs ?? -1) ? bike : best),
    null,
  )
  const way = nextToLook(watched, { startMs, nowMs: now, from: lastLooked?.lookedAtMs ? lastLooked.id : null })
  const { looked, of } = coverage(watched, { startMs, nowMs: now })
  const bike = data.bikes.find(({ bikeId }) => bikeId === chosen)
  const lastNote = state.notes.find(({ id }) => id === last)
  const latest = state.notes.at(-1)

  const numbers = useMemo(() => data.bikes.filter(({ rider }) => rider).map(({ number }) => number), [data.bikes])
  const proposals = useConsoles(numbers, block)
  /** Waved away, by bike and sign: not proposed again in this class. */
  const [waved, setWaved] = useState<ReadonlySet<string>>(new Set())
  const proposed = proposals.filter(
    ({ bike: number, sign }) =>
      !waved.has(`${number} ${sign}`) &&
      !state.notes.some((one) => isOpen(one) && one.sign === sign && bikeOf(data, number)?.rider?.id === one.memberId),
  )

  type Noted = Omit<Extract<ClassEntry, { op: 'addNote' }>, 'op' | 'memberId' | 'bikeId' | 'side'> &
    Readonly<{ side?: NoteState['side'] }>
  function noteOn(bikeId: string, memberId: string, noted: Noted) {
    const id = write({
      side: 'both',
      ...noted,
      op: 'addNote',
      memberId,
      bikeId,
      classId: info.id,
      ...(!info.open && { minute }),
      ...(posture && { posture }),
    })
    setLast(id)
  }

  return (
    <div className={styles.page} data-panel={bike || inRoom ? 'open' : undefined}>
      <ClassHead info={info} moment="watch" seesNotes />
      <div className={styles.strip}>
        <p className={styles.block}>
          {block ? (
            <>
              <b>{block.name || 'Block'}</b> {block.rpm} turns, {2 * block.rpm} beats
            </>
          ) : (
            <span>{info.open ? 'Open floor' : info.blocks.length > 0 ? 'No block runs' : 'No plan of blocks'}</span>
          )}
          {reminder && <em>{REMINDER_TEXT[reminder]}</em>}
        </p>
        <div className={styles.posture} role="group" aria-label="Seated or standing">
          {(['seated', 'standing'] as const).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={posture === one}
              onClick={() => setSaid({ posture: one, blockId: block?.id })}
            >
              {one}
            </button>
          ))}
        </div>
        <p className={styles.coverage}>
          <b>
            {looked} of {of}
          </b>{' '}
          looked at
        </p>
        <button
          type="button"
          className={styles.room}
          aria-pressed={inRoom}
          onClick={() => {
            setInRoom(!inRoom)
            setChosen(null)
          }}
        >
          Room cue
        </button>
        <OutboxTrouble queue={CLASS_QUEUE} />
      </div>
      <div className={styles.floor}>
        {of === 0 ? (
          <NobodySits info={info} withoutBike={data.withoutBike} placed={refreshPlaces} />
        ) : (
          <FloorRows bikes={data.bikes} widthM={data.widthM} label="The floor" tall>
            {(one) => {
              const seat = watched.find(({ id }) => id === one.bikeId)
              return (
                <WatchTile
                  number={one.number}
                  name={one.rider?.name ?? null}
                  chosen={one.bikeId === chosen}
                  open={state.notes
                    .filter((n) => n.memberId === one.rider?.id && (isOpen(n) || n.score || n.sign === 'redFlag'))
                    .map((n) => n.id)
                    .join(' ')}
                  notes={state.notes}
                  age={seat ? Math.floor(minutesSince(seat, startMs, now)) : null}
                  looked={seat?.lookedAtMs != null}
                  next={way.indexOf(one.bikeId) + 1}
                  toCheck={one.toCheck && !checked.has(one.rider?.id ?? '')}
                  stop={one.stop}
                  trial={one.trial}
                  onTap={() => {
                    setInRoom(false)
                    setChosen(one.bikeId === chosen ? null : one.rider ? one.bikeId : null)
                  }}
                />
              )
            }}
          </FloorRows>
        )}
      </div>
      <aside className={styles.panel} aria-label="Notes">
        {bike?.rider ? (
          <NotePanel
            key={bike.bikeId}
            bike={{ ...bike, rider: bike.rider }}
            block={block}
            state={state}
            earlier={data.earlier}
            cues={data.cues}
            referral={data.referral ?? REFERRAL}
            toCheck={bike.toCheck && !checked.has(bike.rider.id)}
            latest={latest && latest.memberId !== bike.rider.id ? latest : undefined}
            lastNote={lastNote}
            onNote={(noted) => noteOn(bike.bikeId, bike.rider!.id, noted)}
            onChange={(noteId, change) => {
              write({ op: 'changeNote', classId: info.id, noteId, change })
              if (change.strength) setLast(noteId)
            }}
            onWithdraw={(noteId) => {
              write({ op: 'withdrawNote', classId: info.id, noteId })
              setLast(null)
            }}
            onLook={(numbers) =>
              write({
                op: 'addLook',
                classId: info.id,
                memberId: bike.rider!.id,
                bikeId: bike.bikeId,
                ...(numbers && { numbers }),
              })
            }
            next={way
              .map((id) => data.bikes.find(({ bikeId }) => bikeId === id)!)
              .map(({ bikeId, number }) => ({ bikeId, number }))}
            onNext={setChosen}
            close={() => setChosen(null)}
          />
        ) : inRoom ? (
          <RoomCuePanel
            state={state}
            bikes={data.bikes}
            cues={data.cues}
            onSay={(cue) => write({ op: 'addRoomCue', classId: info.id, ...cue })}
            onHeld={(noteId, held) => write({ op: 'changeNote', classId: info.id, noteId, change: { held } })}
            close={() => setInRoom(false)}
          />
        ) : (
          <>
            <NextPanel way={way} data={data} onTap={setChosen} />
            <ConsoleProposals
              proposed={proposed}
              onNote={({ bike: number, sign }) => {
                const at = bikeOf(data, number)
                if (at?.rider) noteOn(at.bikeId, at.rider.id, { sign })
              }}
              onWave={({ bike: number, sign }) => setWaved(new Set([...waved, `${number} ${sign}`]))}
            />
          </>
        )}
      </aside>
    </div>
  )
}

const bikeOf = (data: WatchData, number: number) => data.bikes.find((one) => one.number === number)

/** What the bikes' consoles point at: written only if somebody who looks says so. */
function ConsoleProposals({
  proposed,
  onNote,
  onWave,
}: Readonly<{
  proposed: readonly ConsoleProposal[]
  onNote: (one: ConsoleProposal) => void
  onWave: (one: ConsoleProposal) => void
}>) {
  if (proposed.length === 0) return null
  return (
    <section className={styles.consoles} aria-label="From the consoles">
      <h2>From the consoles</h2>
      {proposed.slice(0, MAX_PROPOSED).map((one) => (
        <div key={`${one.bike} ${one.sign}`}>
          <span>{formatConsoleProposal(one)}</span>
          <button type="button" onClick={() => onNote(one)}>
            Note it
          </button>
          <button type="button" onClick={() => onWave(one)}>
            No
          </button>
        </div>
      ))}
    </section>
  )
}
const MAX_PROPOSED = 4

function NextPanel({ way, data, onTap }: { way: readonly string[]; data: WatchData; onTap: (bikeId: string) => void }) {
  return (
    <div className={styles.next}>
      <h2>Look next at</h2>
      {way.map((id) => {
        const { number, rider, toCheck } = data.bikes.find(({ bikeId }) => bikeId === id)!
        return (
          <button key={id} type="button" onClick={() => onTap(id)}>
            <b>{number}</b>
            <span>
              {rider?.name}
              {toCheck && <em>numbers not looked at yet</em>}
            </span>
          </button>
        )
      })}

      <p className={styles.quiet}>Tap a bike on the floor to note what you see, from the feet up.</p>
    </div>
  )
}

/** A class in which nobody has a bike: place the riders, or begin with who is here. */
function NobodySits({
  info,
  withoutBike,
  placed,
}: Readonly<{ info: ClassInfo; withoutBike: number; placed: () => void }>) {
  const [state, setState] = useState<'asked' | 'busy' | 'failed'>('asked')
  const place = async () => {
    setState('busy')
    const done = await command('places.placeEverybody', { classId: info.id }).catch(() => null)
    setState(done?.outcome === 'kept' ? 'asked' : 'failed')
    if (done?.outcome === 'kept') placed()
  }
  return (
    <div className={styles.nobody}>
      <h2>Nobody has a bike yet</h2>
      <p>
        {withoutBike > 0
          ? `${withoutBike} on the list. A note needs a rider on a bike.`
          : 'Nobody is on the list. A note needs a rider on a bike.'}
      </p>
      {withoutBike > 0 && (
        <button type="button" className={styles.place} disabled={state === 'busy'} onClick={place}>
          {state === 'busy' ? 'Placing …' : 'Place the riders'}
        </button>
      )}
      <Link href={`/class/${info.id}`}>Begin with who is here</Link>
      {state === 'failed' && <p role="alert">The places could not be computed. Nothing changed; try again.</p>}
    </div>
  )
}
