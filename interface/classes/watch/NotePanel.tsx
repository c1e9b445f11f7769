'use client'
import { useState } from 'react'
import type { Block } from '@/core/classes/plan/blocks'
import { judgeSign } from '@/core/classes/plan/blocks'
import {
  formatCueHistory,
  formatJudged,
  formatNote,
  formatRedFlag,
  formatSetUpFirst,
} from '@/core/messages/classes/watch'
import { isOpen, type ClassState, type NoteChange, type NoteState, type Side } from '@/core/classes/watch/classState'
import {
  FELT,
  FELT_REGIONS,
  RED_FLAG,
  RED_FLAGS,
  feltNamed,
  SCORES,
  type FeltRegion,
} from '@/core/classes/watch/comfort'
import { cueAdvice, type CuedNote } from '@/core/classes/watch/cue'
import { REGION_NAME, REGIONS, SIGNS, type Region } from '@/core/classes/watch/signs'
import type { WatchBike } from '@/server/pages/classes/watch'
import { BodyFigure } from '../../kit/drawing/BodyFigure'
import { StopBanner } from '../../kit/StopMark'
import styles from './notePanel.module.css'

type Noted = Readonly<{ sign: string; side?: Side; region?: string; score?: number }>
type Props = Readonly<{
  bike: WatchBike & Readonly<{ rider: NonNullable<WatchBike['rider']> }>
  block: Block | null
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
  onNote: (noted: Noted) => void
  onChange: (noteId: string, change: NoteChange) => void
  onWithdraw: (noteId: string) => void
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
  const { bike, state, earlier, cues, toCheck, latest, lastNote, onLook, next, onNext, close } = props
  const [region, setRegion] = useState<Region>('feet')
  const [felt, setFelt] = useState(false)
  const own = state.notes.filter(({ memberId }) => memberId === bike.rider.id)
  const open = own.filter(isOpen)
  const flag = own.findLast(({ sign }) => sign === RED_FLAG)
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

      {earlierOpen.length > 0 && (
        <ul className={styles.open} aria-label="Open notes">
          {earlierOpen.map((note) => (
            <li key={note.id}>
              <span>
                {formatNote(note)}
                {note.strength === 'clear' && <em> clear</em>}
                {note.held === false && <em> not changed</em>}
              </span>
              <button
                type="button"
                aria-pressed={note.held === true}
                onClick={() => props.onChange(note.id, { held: true })}
              >
                Changed
              </button>
              <button
                type="button"
                aria-pressed={note.held === false}
                onClick={() => props.onChange(note.id, { held: false })}
              >
                Not yet
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className={styles.kinds} role="group" aria-label="Seen or felt">
        <button type="button" aria-pressed={!felt} onClick={() => setFelt(false)}>
          Seen
        </button>
        <button type="button" aria-pressed={felt} onClick={() => setFelt(true)}>
          Felt
        </button>
        {latest && latest.sign !== FELT && latest.sign !== RED_FLAG && (
          <button
            type="button"
            className={styles.again}
            onClick={() => props.onNote({ sign: latest.sign, side: latest.side })}
          >
            Again: {formatNote(latest)}
          </button>
        )}
      </div>
      {felt ? (
        <Felt onNote={props.onNote} own={own} />
      ) : (
        <div className={styles.seen}>
          <div className={styles.figure}>
            <BodyFigure lit={region} onPick={setRegion} />
            <div className={styles.regions} role="group" aria-label="Region">
              {[...DOWNWARD, 'load' as const].map((name) => (
                <button key={name} type="button" aria-pressed={name === region} onClick={() => setRegion(name)}>
                  {REGION_NAME[name]}
                </button>
              ))}
            </div>
          </div>
          <Signs {...props} region={region} own={own} />
        </div>
      )}
      <div className={styles.foot}>
        {advice && about && (
          <div className={styles.cue} aria-live="polite">
            {advice.kind === 'say' ? (
              <>
                <p>“{cues[advice.sign.sign] ?? advice.sign.cue}”</p>
                <button
                  type="button"
                  aria-pressed={about.cued}
                  onClick={() => props.onChange(about.id, { cued: !about.cued })}
                >
                  {about.cued ? 'Said ✓' : 'Said'}
                </button>
              </>
            ) : (
              <p className={styles.first}>{formatSetUpFirst(advice)}</p>
            )}
            <small>{formatCueHistory(advice)}</small>
          </div>
        )}
        <footer>
          {lastNote && lastNote.memberId === bike.rider.id ? (
            <>
              <span>{formatNote(lastNote)} noted</span>
              <button type="button" onClick={() => props.onWithdraw(lastNote.id)}>
                Undo
              </button>
            </>
          ) : (
            <span className={styles.quiet}>Next</span>
          )}
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

function Signs({
  region,
  own,
  block,
  bike,
  onNote,
  onChange,
}: Props & Readonly<{ region: Region; own: readonly NoteState[] }>) {
  const tap = (sign: string, side: Side) => {
    const there = own.find((note) => note.sign === sign && note.side === side && note.held !== true)
    if (!there) onNote({ sign, side })
    else if (there.strength !== 'clear') onChange(there.id, { strength: 'clear' })
  }
  const stateOf = (sign: string, side: Side) => {
    const there = own.find((note) => note.sign === sign && note.side === side && note.held !== true)
    return !there ? undefined : there.strength === 'clear' ? 'clear' : 'slight'
  }
  return (
    <div className={styles.signs}>
      {SIGNS.filter((one) => one.region === region).map(({ sign, name, sided }) => {
        const judged = judgeSign(sign, block, { kneeNotes: bike.kneeNotes })
        const remark = formatJudged(judged)
        const sides: readonly Side[] = sided ? ['left', 'both', 'right'] : ['both']
        return (
          <div key={sign} className={judged.counts ? styles.sign : styles.meant} role="group" aria-label={name}>
            {sides.map((side) => (
              <button
                key={side}
                type="button"
                data-state={stateOf(sign, side)}
                className={side === 'both' ? styles.middle : styles.side}
                aria-label={sided ? `${name}, ${side}` : name}
                aria-pressed={stateOf(sign, side) !== undefined}
                onClick={() => tap(sign, side)}
              >
                {side === 'both' ? (
                  <>
                    {name}
                    {remark && <small>{remark}</small>}
                    {stateOf(sign, side) === 'clear' && <small>clear</small>}
                  </>
                ) : (
                  <>
                    {side}
                    {stateOf(sign, side) === 'clear' && <small>clear</small>}
                  </>
                )}
              </button>
            ))}
          </div>
        )
      })}
    </div>
  )
}

/** Flags that stop the ride first; then where it is felt, the side, and one large scale. */
function Felt({ onNote, own }: Pick<Props, 'onNote'> & Readonly<{ own: readonly NoteState[] }>) {
  const [region, setRegion] = useState<FeltRegion | null>(null)
  const [side, setSide] = useState<Side>('both')
  const scored = (where: FeltRegion) => own.findLast((note) => note.sign === FELT && note.region === where)
  if (region !== null)
    return (
      <section className={styles.howStrong} aria-label={feltNamed(region)!.name}>
        <button type="button" className={styles.back} onClick={() => setRegion(null)}>
          ‹ {feltNamed(region)!.name}
        </button>
        <div className={styles.kinds} role="group" aria-label="Side">
          {(['left', 'both', 'right'] as const).map((one) => (
            <button key={one} type="button" aria-pressed={side === one} onClick={() => setSide(one)}>
              {one}
            </button>
          ))}
          <RidersSides />
        </div>
        <p>How strong? 0 nothing, 10 as bad as can be</p>
        <div className={styles.scores}>
          {SCORES.map((score) => (
            <button
              key={score}
              type="button"
              aria-label={`${feltNamed(region)!.name}, ${score} of 10`}
              aria-pressed={scored(region)?.score === score}
              onClick={() => onNote({ sign: FELT, region, score, side })}
            >
              {score}
            </button>
          ))}
        </div>
      </section>
    )
  return (
    <div className={styles.felt}>
      <section aria-label="Stops the ride">
        <h3>Stops the ride</h3>
        <div className={styles.flags}>
          {RED_FLAGS.map(({ flag, name }) => (
            <button
              key={flag}
              type="button"
              aria-pressed={own.some((note) => note.sign === RED_FLAG && note.region === flag)}
              onClick={() => onNote({ sign: RED_FLAG, region: flag })}
            >
              {name}
            </button>
          ))}
        </div>
      </section>
      <section aria-label="Where is it felt?">
        <h3>Where is it felt?</h3>
        <div className={styles.places}>
          {FELT_REGIONS.map((one) => (
            <button key={one.region} type="button" onClick={() => setRegion(one.region)}>
              {one.name}
              {scored(one.region) && <em>{scored(one.region)!.score} of 10</em>}
            </button>
          ))}
        </div>
      </section>
    </div>
  )
}

/** Left and right are the rider's own: a head and shoulders that face you, each side with its letter. */
function RidersSides() {
  return (
    <svg className={styles.sides} viewBox="0 0 92 44" role="img" aria-label="Left and right are the rider’s own">
      <circle cx="46" cy="12" r="9" />
      <path d="M24 42c2-14 12-18 22-18s20 4 22 18Z" />
      <circle className={styles.eye} cx="43" cy="11" r="1.4" />
      <circle className={styles.eye} cx="49" cy="11" r="1.4" />
      <text x="10" y="36">
        R
      </text>
      <text x="82" y="36">
        L
      </text>
    </svg>
  )
}
