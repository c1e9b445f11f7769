'use client'
import { useState } from 'react'
import type { AxisName, Marks } from '@/core/base/conventions'
import {
  AGAIN_ON_TRIAL,
  AGAIN_REASON_NAME,
  AGAIN_TODAY,
  formatBeyond,
  formatDisturbed,
  formatMoveCaution,
  formatMoveButton,
  formatMoveExpectation,
  formatMoveWay,
  MOVE_REASON_NAME,
} from '@/core/messages/setups/floorMoves'
import { arrowsOf } from '@/core/messages/words/adjustments'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import {
  AGAIN_REASONS,
  CHOSEN_REASONS,
  isBeyond,
  labelText,
  markAt,
  movableAxes,
  movedMm,
  type FloorMark,
  type FloorScales,
  type MarkMove,
  type MovableAxis,
  type MoveReason,
} from '@/core/setups/moves/move'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { useMoveOutlook, type Outlook } from './useMoveOutlook'
import styles from './move.module.css'

type Props = Readonly<{
  scales: FloorScales
  /** As this machine takes them. */
  marks: Marks
  axis: AxisName
  memberId: string
  bikeId: string
  /** A move earlier today, or a running trial: another move needs a reason. */
  movedToday: boolean
  onTrial: boolean
  /** Health comes first: every move needs a confirmation. */
  stopped?: boolean
  onMove: (move: MarkMove) => void
  leave: () => void
}>

/** One axis, a mark up or down: a tap on the reason moves it, after a question where it is no mild move. */
export function MoveChoice(props: Props) {
  const axis = movableAxes(props.scales, props.marks).find((one) => one.axis === props.axis)
  return axis ? <Choice key={axis.label} {...props} movable={axis} /> : null
}

function Choice({
  scales,
  memberId,
  bikeId,
  movedToday,
  onTrial,
  stopped = false,
  movable,
  leave,
  onMove,
}: Props & Readonly<{ movable: MovableAxis }>) {
  const { axis, label: from } = movable
  const [steps, setSteps] = useState({ up: 1, down: 1 })
  const [up, down] = [markAt(movable, steps.up), markAt(movable, -steps.down)]
  const { outlook, isAsking } = useMoveOutlook(memberId, bikeId, axis, up?.label ?? null, down?.label ?? null)
  // Whether it is asked about is decided at the tap: an outlook that comes later puts no other question in its place.
  const [picked, setPicked] = useState<Readonly<{ to: string; why: MoveReason; isQuestion: boolean }> | null>(null)
  const [agreed, setAgreed] = useState(false)
  const needsReason = movedToday || onTrial
  const isQuestion = (to: string) => isBeyond(movable, to, stopped ? [] : outlook?.alone)
  const pick = (to: string, why: MoveReason) => {
    if (isQuestion(to) || needsReason) setPicked({ to, why, isQuestion: isQuestion(to) })
    else onMove({ axis, from, to, why })
  }
  if (picked)
    return (
      <section className={styles.choice} aria-label="Move a mark">
        <h3>
          {AXIS_TITLE[axis]} {labelText(scales, axis, from)} → {labelText(scales, axis, picked.to)}
        </h3>
        {picked.isQuestion && !agreed ? (
          <Ask question={formatBeyond(scales, axis, stopped ? [] : outlook?.alone)} leave={() => setPicked(null)}>
            <button
              type="button"
              className={styles.go}
              onClick={() => (needsReason ? setAgreed(true) : onMove({ axis, from, to: picked.to, why: picked.why }))}
            >
              Move it
            </button>
          </Ask>
        ) : (
          <Ask question={onTrial ? AGAIN_ON_TRIAL : AGAIN_TODAY} leave={() => setPicked(null)}>
            {AGAIN_REASONS.map((again) => (
              <button
                key={again}
                type="button"
                onClick={() => onMove({ axis, from, to: picked.to, why: picked.why, again })}
              >
                {AGAIN_REASON_NAME[again]}
              </button>
            ))}
          </Ask>
        )}
      </section>
    )
  const way = (sign: 1 | -1, to: FloorMark | null) => (
    <Way
      movable={movable}
      sign={sign}
      to={to}
      outlook={outlook}
      further={
        markAt(movable, sign * ((sign > 0 ? steps.up : steps.down) + 1)) === null
          ? null
          : () => setSteps(sign > 0 ? { ...steps, up: steps.up + 1 } : { ...steps, down: steps.down + 1 })
      }
      onPick={pick}
    />
  )
  return (
    <section className={styles.choice} aria-label="Move a mark" aria-busy={isAsking}>
      <h3>
        {AXIS_TITLE[axis]} {labelText(scales, axis, from)}
        <button type="button" className={styles.leave} onClick={leave}>
          Leave it
        </button>
      </h3>
      <div className={styles.two}>
        {way(-1, down)}
        {way(1, up)}
      </div>
      <p className={styles.caution}>{formatMoveCaution(axis)}</p>
      <p className={styles.after}>{formatDisturbed(axis)}</p>
    </section>
  )
}

function Ask({
  question,
  leave,
  children,
}: Readonly<{ question: string; leave: () => void; children: React.ReactNode }>) {
  return (
    <>
      <p className={styles.question}>{question}</p>
      <div className={styles.ways} role="group" aria-label="Move it all the same?">
        {children}
        <button type="button" onClick={leave}>
          Leave it
        </button>
      </div>
    </>
  )
}

/** One direction: the target mark, its distance, the expected checks, and a button for each reason. */
function Way({
  movable,
  sign,
  to,
  outlook,
  further,
  onPick,
}: Readonly<{
  movable: MovableAxis
  sign: 1 | -1
  to: FloorMark | null
  outlook: Outlook | null
  further: (() => void) | null
  onPick: (to: string, why: MoveReason) => void
}>) {
  const { shown } = useUnitSystem()
  const { axis } = movable
  const arrow = arrowsOf(axis)[sign > 0 ? 1 : 0]
  if (!to) return <div className={styles.end}>{arrow} The scale ends here.</div>
  const expected = outlook?.expects[to.label]
  return (
    <div className={styles.way} role="group" aria-label={formatMoveButton(axis, sign)}>
      <p className={styles.mark}>
        <span>{arrow}</span>
        <b>{to.text}</b>
        <small>{formatMoveWay(axis, movedMm(movable, to.label), shown)}</small>
        {further && (
          <button type="button" aria-label={`${formatMoveButton(axis, sign)}, one mark more`} onClick={further}>
            +
          </button>
        )}
      </p>
      {expected && <small>{formatMoveExpectation(axis, expected, shown)}</small>}
      <div className={styles.reasons}>
        {CHOSEN_REASONS.map((why) => (
          <button key={why} type="button" onClick={() => onPick(to.label, why)}>
            {MOVE_REASON_NAME[why]}
          </button>
        ))}
      </div>
    </div>
  )
}
