'use client'
import { useState } from 'react'
import { HAND_POSITIONS, type HandPosition, type Posture } from '@/core/classes/plan/blockWords'
import { judgeSign, type Block } from '@/core/classes/plan/blocks'
import type { NoteChange, NoteState, Side } from '@/core/classes/watch/classState'
import { SIGNS, type Region } from '@/core/classes/watch/signs'
import { formatHandsRemark, formatJudged, HANDS_NAME } from '@/core/messages/classes/watch'
import type { Noted } from './noted'
import styles from './notePanel.module.css'

type Props = Readonly<{
  region: Region
  /** The rider's notes of the class. */
  own: readonly NoteState[]
  block: Block | null
  posture: Posture | null
  kneeNotes: boolean
  onNote: (noted: Noted) => void
  onChange: (noteId: string, change: NoteChange) => void
}>

/** The signs of a region, left and right where they have sides; a second tap makes one clear. */
export function Signs({ region, own, block, posture, kneeNotes, onNote, onChange }: Props) {
  /** Where the hands lie, as the plan has it until it is tapped; it goes with signs of arms and hands. */
  const [hands, setHands] = useState<HandPosition | null>(block?.hands ?? null)
  const isOfHands = region === 'hands'
  const remarkOfHands = isOfHands ? formatHandsRemark(hands, posture) : null
  const tap = (sign: string, side: Side) => {
    const there = own.find((note) => note.sign === sign && note.side === side && note.held !== true)
    if (!there) onNote({ sign, side, ...(isOfHands && hands && { hands }) })
    else if (there.strength !== 'clear') onChange(there.id, { strength: 'clear' })
  }
  const stateOf = (sign: string, side: Side) => {
    const there = own.find((note) => note.sign === sign && note.side === side && note.held !== true)
    return !there ? undefined : there.strength === 'clear' ? 'clear' : 'slight'
  }
  return (
    <div className={styles.signs}>
      {isOfHands && (
        <div className={styles.kinds} role="group" aria-label="Where the hands lie">
          {HAND_POSITIONS.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={hands === one}
              onClick={() => setHands(hands === one ? null : one)}
            >
              {HANDS_NAME[one]}
            </button>
          ))}
          {remarkOfHands && <small>{remarkOfHands}</small>}
        </div>
      )}
      {SIGNS.filter((one) => one.region === region).map(({ sign, name, sided }) => {
        const judged = judgeSign(sign, block, { kneeNotes })
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
