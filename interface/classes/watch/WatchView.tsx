'use client'
import { useEffect, useMemo, useState } from 'react'
import { blockAt, type Block, type Posture } from '@/core/classes/plan/blocks'
import { isOpen, lastLooks, numbersLookedAt, type ClassState } from '@/core/classes/watch/classState'
import { REFERRAL } from '@/core/classes/watch/comfort'
import type { ConsoleProposal } from '@/core/classes/watch/console'
import type { Region } from '@/core/classes/watch/signs'
import { coverage, minutesSince, nextToLook, type WatchedBike } from '@/core/classes/watch/coverage'
import { formatMoveOnTile } from '@/core/messages/setups/floorMoves'
import type { WatchBike, WatchData } from '@/server/pages/classes/watch'
import { FloorRows } from '../rooms/FloorRows'
import { useStoredPage } from '../../offline/storePage'
import { useRefresh } from '../../kit/useRefresh'
import { useTabState } from '../../kit/useTabState'
import { ClassHead } from '../head/ClassHead'
import type { ClassInfo } from '../classTypes'
import { NextPanel, ConsoleProposals } from './NextPanel'
import { NobodySits } from './NobodySits'
import type { Noted } from './noted'
import { NotePanel } from './NotePanel'
import { WatchStrip } from './WatchStrip'
import { RoomCuePanel } from './RoomCuePanel'
import { useClassClock } from '../useClassClock'
import { useConsoles } from './useConsoles'
import { useMoves } from './useMoves'
import { useWatch } from './useWatch'
import { useWakeLock } from './useWakeLock'
import { WatchTile } from './WatchTile'
import styles from './watch.module.css'

/** During a class: the room on one screen. Tap a bike, the region, what is seen; it counts at once. */
export function WatchView({ info, data }: { info: ClassInfo; data: WatchData }) {
  const refreshPlaces = useRefresh()
  const { state, write } = useWatch(info.id, data.state, refreshPlaces)
  const { nowMs } = useClassClock()
  useWakeLock()
  useStoredPage(`/class/${info.id}/watch`)
  const { chosen, region, setChosen, setRegion } = useChosen(info.id)
  const [inRoom, setInRoom] = useState(false)
  const { agrees, agree } = useAgreed()
  /** The latest tap: it can be taken back until the next one. */
  const [last, setLast] = useTabState<string>(`watch-last ${info.id}`)
  const now = nowMs || info.startMs
  const minute = Math.floor((now - info.startMs) / 60_000)
  const block = info.open ? null : blockAt(info.blocks, (now - info.startMs) / 60_000)
  const [posture, setPosture] = usePosture(block)

  const checked = useMemo(() => numbersLookedAt(state.looks), [state.looks])
  const watched = useWatchedBikes(data.bikes, state)
  const startMs = info.open ? now : info.startMs
  const way = lookOrder(watched, startMs, now)
  const next = way.map((id) => ({ bikeId: id, number: data.bikes.find(({ bikeId }) => bikeId === id)!.number }))
  const bike = data.bikes.find(({ bikeId }) => bikeId === chosen)
  const moves = useMoves(info.id, data, state, bike, write)
  const lastNote = state.notes.find(({ id }) => id === last)
  const latest = state.notes.at(-1)

  const { proposed, wave } = useProposals(data, state, block)
  function noteOn(bikeId: string, rider: Rider, noted: Noted) {
    // The panel of a rider without consent opens with the question.
    if (!agrees(rider)) return setChosen(bikeId)
    const id = write({
      side: 'both',
      ...noted,
      ...(!rider.agrees && { agrees: true }),
      op: 'addNote',
      memberId: rider.id,
      bikeId,
      classId: info.id,
      ...(!info.open && { minute }),
      ...(posture && { posture }),
    })
    setLast(id)
    moves.forget()
  }

  return (
    <div className={styles.page} data-panel={bike || inRoom ? 'open' : undefined}>
      <ClassHead info={info} moment="watch" seesNotes />
      <WatchStrip
        info={info}
        block={block}
        minute={minute}
        posture={posture}
        coverage={coverage(watched, { startMs, nowMs: now })}
        inRoom={inRoom}
        onPosture={setPosture}
        onRoomCue={() => {
          setInRoom(!inRoom)
          setChosen(null)
        }}
      />
      <div className={styles.floor}>
        {watched.length === 0 ? (
          <NobodySits info={info} withoutBike={data.withoutBike} placed={refreshPlaces} />
        ) : (
          <Tiles
            data={data}
            state={state}
            watched={watched}
            way={way}
            checked={checked}
            chosen={chosen}
            startMs={startMs}
            nowMs={now}
            onTap={(one) => {
              setInRoom(false)
              setChosen(one.bikeId === chosen ? null : one.rider ? one.bikeId : null)
            }}
          />
        )}
      </div>
      <aside className={styles.panel} aria-label="Notes">
        {bike?.rider ? (
          <NotePanel
            key={bike.bikeId}
            bike={{ ...bike, rider: bike.rider }}
            block={block}
            posture={posture}
            state={state}
            earlier={data.earlier}
            cues={data.cues}
            referral={data.referral ?? REFERRAL}
            toCheck={bike.toCheck && !checked.has(bike.rider.id)}
            latest={latest && latest.memberId !== bike.rider.id ? latest : undefined}
            lastNote={lastNote}
            region={region}
            onRegion={setRegion}
            agrees={agrees(bike.rider)}
            wording={data.wording}
            onAgree={() => agree(bike.rider!)}
            onNote={(noted) => noteOn(bike.bikeId, bike.rider!, noted)}
            onChange={(noteId, change) => {
              write({ op: 'changeNote', classId: info.id, noteId, change })
              if (change.strength) setLast(noteId)
            }}
            onWithdraw={(noteId) => {
              write({ op: 'withdrawNote', classId: info.id, noteId })
              setLast(null)
            }}
            movable={moves.movable}
            lastMove={moves.lastMove}
            onMove={(move) => {
              moves.move(move)
              setLast(null)
            }}
            onUndoMove={moves.undo}
            refusedMove={moves.refusedMove}
            onLook={(numbers) => write(lookAt(info.id, bike.bikeId, bike.rider!, numbers))}
            next={next}
            onNext={setChosen}
            close={() => setChosen(null)}
          />
        ) : inRoom ? (
          <RoomCuePanel
            state={state}
            bikes={data.bikes}
            cues={data.cues}
            onSpoken={(cue) => write({ op: 'addRoomCue', classId: info.id, ...cue })}
            onOutcome={(noteId, held) => write({ op: 'changeNote', classId: info.id, noteId, change: { held } })}
            close={() => setInRoom(false)}
          />
        ) : (
          <>
            <NextPanel way={way} data={data} onTap={setChosen} />
            <ConsoleProposals
              proposed={proposed}
              onNote={({ bike: number, sign }) => {
                const at = bikeOf(data, number)
                if (at?.rider) noteOn(at.bikeId, at.rider, { sign })
              }}
              onWave={wave}
            />
          </>
        )}
      </aside>
    </div>
  )
}

type Rider = NonNullable<WatchBike['rider']>

/** Who agreed to notes before or here; each note after a yes here carries it, so that it arrives with the first. */
function useAgreed() {
  const [here, setHere] = useState<ReadonlySet<string>>(new Set())
  return {
    agrees: (rider: Rider) => rider.agrees || here.has(rider.id),
    agree: (rider: Rider) => setHere(new Set([...here, rider.id])),
  }
}

const lookAt = (classId: string, bikeId: string, rider: Rider, numbers: boolean) =>
  ({ op: 'addLook', classId, memberId: rider.id, bikeId, ...(numbers && { numbers }) }) as const

/** The room's bikes, each with what is open on it. */
function Tiles({
  data,
  state,
  watched,
  way,
  checked,
  chosen,
  startMs,
  nowMs,
  onTap,
}: Readonly<{
  data: WatchData
  state: ClassState
  watched: readonly WatchedBike[]
  way: readonly string[]
  checked: ReadonlySet<string>
  chosen: string | null
  startMs: number
  nowMs: number
  onTap: (bike: WatchBike) => void
}>) {
  return (
    <FloorRows bikes={data.bikes} widthM={data.widthM} label="The floor" tall>
      {(one) => {
        const seat = watched.find(({ id }) => id === one.bikeId)
        return (
          <WatchTile
            number={one.number}
            name={one.rider?.name ?? null}
            chosen={one.bikeId === chosen}
            open={notesOnTile(state, one.rider?.id)}
            notes={state.notes}
            age={seat ? Math.floor(minutesSince(seat, startMs, nowMs)) : null}
            looked={seat?.lookedAtMs != null}
            next={way.indexOf(one.bikeId) + 1}
            toCheck={one.toCheck && !checked.has(one.rider?.id ?? '')}
            stop={one.stop}
            trial={[...one.plans.map(({ short }) => short), ...(one.trial ? [one.trial] : [])].join('; ') || null}
            moved={movedOnTile(data, state, one)}
            onTap={() => onTap(one)}
          />
        )
      }}
    </FloorRows>
  )
}

/** Most of what is seen is at the feet. */
const FIRST_REGION: Region = 'feet'

/** The bike whose notes are open, and the region of the body; the same when the page reloads. */
function useChosen(classId: string) {
  const [at, setAt] = useTabState<Readonly<{ bikeId: string; region: Region }>>(`watch-at ${classId}`)
  // Leaving the page ends work at the bike; a reload runs no clean-up.
  useEffect(() => () => setAt(null), [setAt])
  return {
    chosen: at?.bikeId ?? null,
    region: at?.region ?? FIRST_REGION,
    setChosen: (bikeId: string | null) => setAt(bikeId === null ? null : { bikeId, region: FIRST_REGION }),
    setRegion: (region: Region) => at && setAt({ ...at, region }),
  }
}

/** The posture announced by hand, valid for its block; else that of the plan. */
function usePosture(block: Block | null): readonly [Posture | null, (posture: Posture) => void] {
  const [announced, setAnnounced] = useState<Readonly<{ posture: Posture; blockId: string | undefined }> | null>(null)
  const own = announced?.blockId === block?.id ? announced?.posture : undefined
  return [own ?? block?.posture ?? null, (posture) => setAnnounced({ posture, blockId: block?.id })]
}

/** Bikes to look at next, from the one looked at last. */
function lookOrder(watched: readonly WatchedBike[], startMs: number, nowMs: number): readonly string[] {
  const last = watched.reduce<WatchedBike | null>(
    (best, bike) => ((bike.lookedAtMs ?? -1) > (best?.lookedAtMs ?? -1) ? bike : best),
    null,
  )
  return nextToLook(watched, { startMs, nowMs, from: last?.lookedAtMs ? last.id : null })
}

/** Ids of a rider's notes that a tile shows: open ones, what is felt, and red flags. */
const notesOnTile = ({ notes }: ClassState, memberId: string | undefined): string =>
  notes
    .filter((note) => note.memberId === memberId && (isOpen(note) || note.score || note.sign === 'redFlag'))
    .map(({ id }) => id)
    .join(' ')

/** Marks moved on a bike for its rider in this class: "seat height 7 → 8". */
function movedOnTile({ scales }: WatchData, { moves }: ClassState, { bikeId, typeId, rider }: WatchBike): string {
  const own = moves.filter((move) => move.bikeId === bikeId && move.memberId === rider?.id)
  return own.map((move) => formatMoveOnTile(scales[typeId] ?? {}, move)).join('; ')
}

const bikeOf = (data: WatchData, number: number) => data.bikes.find((one) => one.number === number)

/** Bikes with a rider, each with the latest look at them. */
function useWatchedBikes(bikes: WatchData['bikes'], state: ClassState): readonly WatchedBike[] {
  const looks = useMemo(() => lastLooks(state), [state])
  return useMemo(
    () =>
      bikes
        .filter(({ rider }) => rider)
        .map(({ bikeId, xM, yM, rider, watchFor }): WatchedBike => ({
          id: bikeId,
          xM,
          yM,
          lookedAtMs: looks.get(rider!.id) ?? null,
          watchFor,
        })),
    [bikes, looks],
  )
}

/** What the consoles point at and nobody noted or waved away. */
function useProposals(data: WatchData, state: ClassState, block: Block | null) {
  const numbers = useMemo(() => data.bikes.filter(({ rider }) => rider).map(({ number }) => number), [data.bikes])
  const proposals = useConsoles(numbers, block)
  /** Waved away, by bike and sign: not proposed again in this class. */
  const [waved, setWaved] = useState<ReadonlySet<string>>(new Set())
  const proposed = proposals.filter(
    ({ bike: number, sign }) =>
      !waved.has(`${number} ${sign}`) &&
      !state.notes.some((one) => isOpen(one) && one.sign === sign && bikeOf(data, number)?.rider?.id === one.memberId),
  )
  const wave = ({ bike, sign }: ConsoleProposal) => setWaved(new Set([...waved, `${bike} ${sign}`]))
  return { proposed, wave }
}
