'use client'
import { useCallback, useEffect, useState } from 'react'
import type { AxisName } from '@/core/base/conventions'
import { formatMoveOnTile } from '@/core/messages/setups/floorMoves'
import { asSentence, capitalized } from '@/core/messages/words/phrases'
import type { MarkMove } from '@/core/setups/moves/move'
import { query, type Found } from '../../commands/command'
import { useRefresh } from '../../kit/useRefresh'
import { useOutbox } from '../../offline/OutboxProvider'
import { MoveChoice } from './MoveChoice'
import { NumberCells } from './NumberCells'
import { RaiseStarter } from './RaiseStarter'
import styles from './move.module.css'

/** The queue of moves made outside the floor of a running class. */
const QUEUE = 'register'

type Loaded = Readonly<{ found: Found<'register.movableMarks'> }> | Readonly<{ why: string }>

/**
 * Moves a rider's marks from a page without a running class: loads the marks, sends moves through the outbox, and
 * offers to undo the latest one.
 */
export function RiderMoves({
  memberId,
  bikeId,
  classId,
}: Readonly<{ memberId: string; bikeId: string; classId?: string }>) {
  const { entries, enqueue, settled, discard } = useOutbox()
  const refresh = useRefresh()
  const [loaded, setLoaded] = useState<Loaded | null>(null)
  const [last, setLast] = useState<(MarkMove & Readonly<{ id: string }>) | null>(null)
  const [axis, setAxis] = useState<AxisName | null>(null)
  const load = useCallback(
    () =>
      query('register.movableMarks', { memberId, bikeId }).then(
        (answer) => setLoaded(answer.outcome === 'found' ? { found: answer } : { why: asSentence(answer.say) }),
        () => setLoaded({ why: 'Without a network the numbers here are not known.' }),
      ),
    [memberId, bikeId],
  )
  useEffect(() => void load(), [load])
  const send = async (id: string, entry: Parameters<typeof enqueue>[1][number]) => {
    await enqueue(QUEUE, [{ ...entry, id }])
    await settled(id)
    await load()
    refresh()
  }
  const refused = entries?.find(
    ({ state, entry }) => state === 'refused' && entry.op === 'moveMark' && entry.memberId === memberId,
  )
  if (!loaded) return <p aria-busy="true">Reading the numbers …</p>
  if ('why' in loaded) return <p>{loaded.why}</p>
  const { scales, marks, movedToday, onTrial, stop, raise } = loaded.found
  const shown = last && marks[last.axis] === last.from ? { ...marks, [last.axis]: last.to } : marks
  const move = (made: MarkMove) => {
    const id = crypto.randomUUID()
    setAxis(null)
    setLast({ ...made, id })
    void send(id, { op: 'moveMark', ...(classId && { classId }), memberId, bikeId, ...made })
  }
  const from = shown.seatHeight
  return (
    <div className={styles.own}>
      {stop && <p className={styles.question}>{capitalized(stop)}. Refer first; move nothing before.</p>}
      {raise && from && !stop && !last && (
        <RaiseStarter
          text={raise.text}
          waits={movedToday || onTrial}
          raise={() => move({ axis: 'seatHeight', from, to: raise.to, why: 'planned' })}
        />
      )}
      <NumberCells scales={scales} marks={shown} chosen={axis} choose={setAxis} />
      {axis && (
        <MoveChoice
          key={axis}
          scales={scales}
          marks={shown}
          axis={axis}
          memberId={memberId}
          bikeId={bikeId}
          movedToday={movedToday || last !== null}
          onTrial={onTrial}
          stopped={stop !== null}
          leave={() => setAxis(null)}
          onMove={move}
        />
      )}
      {refused && (
        <p className={styles.moved} role="alert">
          <span>Not moved: {asSentence(refused.say)}</span>
          <button
            type="button"
            onClick={() => {
              setLast(null)
              void discard(refused)
            }}
          >
            Got it
          </button>
        </p>
      )}
      {last && !refused && (
        <p className={styles.moved} role="status">
          <span>{capitalized(formatMoveOnTile(scales, last))}, moved.</span>
          <button
            type="button"
            onClick={() => {
              setLast(null)
              void send(crypto.randomUUID(), { op: 'undoMove', ...(classId && { classId }), moveId: last.id })
            }}
          >
            Undo
          </button>
        </p>
      )}
    </div>
  )
}
