'use client'
import { useState } from 'react'
import type { AxisName } from '@/core/base/conventions'
import type { Posture } from '@/core/classes/plan/blockWords'
import type { Block } from '@/core/classes/plan/blocks'
import {
  isOpen,
  type ClassState,
  type MoveState,
  type NoteChange,
  type NoteState,
} from '@/core/classes/watch/classState'
import { RED_FLAG } from '@/core/classes/watch/comfort'
import { cueAdvice, type CuedNote } from '@/core/classes/watch/cue'
import { REGION_NAME, REGIONS, type Region } from '@/core/classes/watch/signs'
import { formatRedFlag } from '@/core/messages/classes/watch'
import { asSentence } from '@/core/messages/words/phrases'
import type { MarkMove } from '@/core/setups/moves/move'
import type { WatchBike } from '@/server/pages/classes/watch'
import { BodyFigure } from '../../kit/drawing/BodyFigure'
import { AskConsent } from '../../comfort/limits/AskConsent'
import { StopBanner } from '../../kit/StopMark'
import { MoveChoice } from '../../setups/move/MoveChoice'
import { NumberCells } from '../../setups/move/NumberCells'
import { Felt } from './Felt'
import type { Noted } from './noted'
import { Cue, DuePlans, LastTap, OpenNotes } from './NoteParts'
import { Signs } from './Signs'
import type { Movable } from './useMoves'
import styles from './notePanel.module.css'

type Props = Readonly<{
  bike: WatchBike & Readonly<{ rider: NonNullable<WatchBike['rider']> }>
  /** The rider's present marks and the bike's scales; null where this person may move nothing. */
  movable: Movable | null
  block: Block | null
  /** As announced, or by the plan. */
  posture: Posture | null
  state: ClassState
  earlier: readonly CuedNote[]
  cues: Readonly<Record<string, string>>
  /** The words to a referred rider. */
  referral: string
  toCheck: boolean
  /** The latest note on another rider: repeated with one tap. */
  latest: NoteState | undefined
  /** What was tapped here a moment ago, and may be taken back. */
  lastNote: NoteState | undefined
  /** Of the body, whose signs are shown. */
  region: Region
  onRegion: (region: Region) => void
  /** Whether the rider agreed to notes; `wording`: the question otherwise. */
  agrees: boolean
  wording: string
  onAgree: () => void
  onNote: (noted: Noted) => void
  onChange: (noteId: string, change: NoteChange) => void
  onWithdraw: (noteId: string) => void
  /** What was moved here a moment ago, and may be taken back. */
  lastMove: MoveState | undefined
  onMove: (move: MarkMove) => void
  onUndoMove: (moveId: string) => void
  /** A move of this rider that was not taken, and why. */
  refusedMove: Readonly<{ why: string; discard: () => void }> | null
  onLook: (numbers: boolean) => void
  next: readonly Readonly<{ bikeId: string; number: number }>[]
  onNext: (bikeId: string) => void
  close: () => void
}>

const UPWARD = [...REGIONS].filter((region) => region !== 'load')
/** From the head down, as on the figure; signs of load are apart. */
const DOWNWARD: readonly Region[] = [...UPWARD].reverse()

/**
 * What is seen of one rider: region, then the sign, left or right by where one taps; a second tap sets the strength to
 * clear.
 */
export function NotePanel(props: Props) {
  const { bike, state, earlier, cues, toCheck, latest, lastNote, region, onRegion, onLook, next, onNext, close } = props
  const [felt, setFelt] = useState(false)
  const [moving, setMoving] = useState<AxisName | null>(null)
  const own = state.notes.filter(({ memberId }) => memberId === bike.rider.id)
  const open = own.filter(isOpen)
  const movedToday = bike.movedToday || state.moves.some(({ memberId }) => memberId === bike.rider.id)
  const flag = own.findLast(({ sign }) => sign === RED_FLAG)
  const stopped = bike.stop !== null || flag !== undefined
  // Notes open when the panel opened are above; new notes do not move them.
  const [before] = useState(() => new Set(open.map(({ id }) => id)))
  const earlierOpen = own.filter(({ id }) => before.has(id))
  const advice = cueAdvice(
    open.map(({ sign }) => sign),
    [...earlier.filter(({ memberId }) => memberId === bike.rider.id), ...own],
  )
  const about = advice && open.findLast(({ sign }) => sign === advice.sign.sign)
  return (
    <div className={styles.panel}>
      <header className={styles.head}>
        <b>{bike.number}</b>
        <h2>{bike.rider.name}</h2>
        <button type="button" className={styles.well} onClick={() => onLook(false)}>
          All well
        </button>
        <button type="button" className={styles.close} aria-label="Close" onClick={close}>
          ✕
        </button>
      </header>
      {(bike.stop || flag) && (
        <StopBanner why={flag ? formatRedFlag(flag.region) : bike.stop!} referral={props.referral} />
      )}
      {toCheck && (
        <button type="button" className={styles.check} onClick={() => onLook(true)}>
          <span>Nobody looked at these numbers{bike.numbers ? `: ${bike.numbers}` : ''}</span>
          <b>Looked at, fine</b>
        </button>
      )}
      {bike.trial && <p className={styles.trial}>{bike.trial}</p>}
      <DuePlans bike={bike} movable={props.movable} movedToday={movedToday} stopped={stopped} onMove={props.onMove} />

      {props.refusedMove && (
        <div className={styles.refused} role="alert">
          <p>Not moved: {asSentence(props.refusedMove.why)}</p>
          <button type="button" onClick={props.refusedMove.discard}>
            Got it
          </button>
        </div>
      )}
      {earlierOpen.length > 0 && moving === null && <OpenNotes notes={earlierOpen} onChange={props.onChange} />}
      <div className={styles.kinds} role="group" aria-label="Seen, felt or moved">
        {([false, true] as const).map((isFelt) => (
          <button
            key={String(isFelt)}
            type="button"
            aria-pressed={moving === null && felt === isFelt}
            onClick={() => {
              setFelt(isFelt)
              setMoving(null)
            }}
          >
            {isFelt ? 'Felt' : 'Seen'}
          </button>
        ))}
        {props.movable && <NumberCells {...props.movable} chosen={moving} choose={setMoving} />}
      </div>
      {props.movable && moving ? (
        <MoveChoice
          key={moving}
          {...props.movable}
          axis={moving}
          memberId={bike.rider.id}
          bikeId={bike.bikeId}
          movedToday={movedToday}
          stopped={stopped}
          onTrial={bike.onTrial}
          onMove={(move) => {
            setMoving(null)
            props.onMove(move)
          }}
          leave={() => setMoving(null)}
        />
      ) : !props.agrees ? (
        <AskConsent name={bike.rider.name} wording={props.wording} onAgree={props.onAgree} />
      ) : felt ? (
        <Felt onNote={props.onNote} own={own} />
      ) : (
        <div className={styles.seen}>
          <div className={styles.figure}>
            <BodyFigure lit={region} onPick={onRegion} />
            <div className={styles.regions} role="group" aria-label="Region">
              {[...DOWNWARD, 'load' as const].map((name) => (
                <button key={name} type="button" aria-pressed={name === region} onClick={() => onRegion(name)}>
                  {REGION_NAME[name]}
                </button>
              ))}
            </div>
          </div>
          <Signs
            region={region}
            own={own}
            block={props.block}
            posture={props.posture}
            kneeNotes={bike.kneeNotes}
            onNote={props.onNote}
            onChange={props.onChange}
          />
        </div>
      )}
      <div className={styles.foot}>
        {advice && about && (
          <Cue
            advice={advice}
            about={about}
            ankle={bike.ankle}
            words={cues[advice.sign.sign]}
            onChange={props.onChange}
          />
        )}
        <footer>
          <LastTap
            move={props.lastMove && props.movable ? { ...props.lastMove, scales: props.movable.scales } : null}
            note={lastNote && lastNote.memberId === bike.rider.id ? lastNote : null}
            latest={props.agrees ? latest : undefined}
            onUndoMove={props.onUndoMove}
            onWithdraw={props.onWithdraw}
            onNote={props.onNote}
          />
          {next.map(({ bikeId, number }) => (
            <button key={bikeId} type="button" className={styles.go} onClick={() => onNext(bikeId)}>
              {number}
            </button>
          ))}
        </footer>
      </div>
    </div>
  )
}
