import { floorScales } from '../../core/messages/setups/floorScales'
import { markAt, movableAxes, CHOSEN_REASONS } from '../../core/setups/moves/move'
import { listAssignments } from '../../server/classes/assignments'
import { listClasses } from '../../server/classes/classes'
import { numbersOn } from '../../server/classes/moves'
import { moveMark, undoMove } from '../../server/commands/useCases/moveMark'
import { daysBefore, LOW_BIKE, type Hall } from './hall'

/** Classes of so many days have moved marks, in so many minutes after their start. */
const DAYS = 15
const MINUTES = 4
/** So many in all: one is taken back. */
const MOVES = 9
const UNDONE = 4
const AXES = ['barHeight', 'seatSlide', 'barHeight', 'barSlide'] as const

/** Marks moved by one in the warm-ups of the last two weeks: numbers on their bike that somebody changed there. */
export async function addMoves({ db, now, scopes, bikes }: Hall): Promise<void> {
  const scope = scopes[1]
  const moved = new Set<string>()
  for (const { id: classId, startsAt } of await listClasses(db, scope, daysBefore(now, DAYS), daysBefore(now, 2)))
    for (const { bikeId, memberId } of await listAssignments(db, scope, classId)) {
      const bike = bikes.find(({ id, number }) => id === bikeId && number !== LOW_BIKE.number)
      const numbers = bike && (await numbersOn(db, scope, memberId, bike))
      if (!numbers || moved.has(memberId) || moved.size === MOVES || numbers.entry.createdAt > startsAt) continue
      const n = moved.size
      const axis = movableAxes(floorScales(bike.type), numbers.marks).find((one) => one.axis === AXES[n % AXES.length])
      const to = axis && markAt(axis, n % 3 === 2 ? -1 : 1)
      if (!to) continue
      const at = new Date(startsAt.getTime() + MINUTES * 60_000)
      const move = { axis: axis.axis, from: axis.label, to: to.label, why: CHOSEN_REASONS[n % CHOSEN_REASONS.length] }
      const id = `history-move-${n}`
      const { outcome } = await moveMark(db, scope, { ...move, id, memberId, bikeId, classId }, at)
      if (outcome !== 'kept') continue
      moved.add(memberId)
      if (n === UNDONE)
        await undoMove(db, scope, { id: `history-undo-${n}`, moveId: id }, new Date(at.getTime() + 900_000))
    }
}
