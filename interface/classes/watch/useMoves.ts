'use client'
import { useMemo } from 'react'
import type { Marks } from '@/core/base/conventions'
import type { ClassEntry, ClassState, MoveState } from '@/core/classes/watch/classState'
import { marksAfter, type FloorScales, type MarkMove } from '@/core/setups/moves/move'
import type { WatchBike, WatchData } from '@/server/pages/classes/watch'
import { useTabState } from '../../kit/useTabState'
import { useOutbox } from '../../offline/OutboxProvider'

/** The marks of a rider that can be moved: those of now, and those the rider came to this class with. */
export type Movable = Readonly<{ scales: FloorScales; marks: Marks; marksBefore: Marks }>

type Moves = Readonly<{
  /** The rider's present marks; null without numbers, or without the permission to set riders up. */
  movable: Movable | null
  /** The latest move of this rider from this page. */
  lastMove: MoveState | undefined
  move: (move: MarkMove) => void
  undo: (moveId: string) => void
  /** Something else was tapped since: the latest move is no longer the one to take back. */
  forget: () => void
  /** A move of this rider that the server did not take, with its reason. */
  refusedMove: Readonly<{ why: string; discard: () => void }> | null
}>

/** Marks moved on one bike during a class, over the notes of the class. */
export function useMoves(
  classId: string,
  data: WatchData,
  state: ClassState,
  bike: WatchBike | undefined,
  write: (entry: ClassEntry) => string,
): Moves {
  const { entries, discard } = useOutbox()
  const [last, setLast] = useTabState<string>(`moved-last ${classId}`)
  const memberId = bike?.rider?.id
  const movable = useMemo(() => {
    const scales = bike && data.scales[bike.typeId]
    if (!data.mayMove || !scales || !bike.marks) return null
    const own = (moves: readonly MoveState[] = []) =>
      moves.filter((one) => one.memberId === memberId && one.bikeId === bike.bikeId)
    const known = own(data.state.moves)
    return {
      scales,
      marks: marksAfter(bike.marks, known, own(state.moves)),
      marksBefore: marksAfter(bike.marks, known, []),
    }
  }, [bike, data, state.moves, memberId])
  const refused = entries?.find(
    ({ state: how, entry }) => how === 'refused' && entry.op === 'moveMark' && entry.memberId === memberId,
  )
  return {
    movable,
    lastMove: state.moves.find(({ id, memberId: whose }) => id === last && whose === memberId),
    move: (move) => {
      if (bike && memberId) setLast(write({ op: 'moveMark', classId, memberId, bikeId: bike.bikeId, ...move }))
    },
    undo: (moveId) => write({ op: 'undoMove', classId, moveId }),
    forget: () => setLast(null),
    refusedMove: refused ? { why: refused.say ?? '', discard: () => void discard(refused) } : null,
  }
}
