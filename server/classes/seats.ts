import type { Marks } from '../../core/base/conventions'
import { formatMachineWhy, PURPOSE_NAME } from '../../core/messages/setups/register'
import type { Certainty } from '../../core/setups/register/entry'
import { marksOnMachine } from '../../core/setups/translate/onMachine'
import type { Scope } from '../platform/accounts/scope'
import { listBikes, type StudioBike } from '../bikes/bikes'
import { listAssignments } from './assignments'
import type { DbExecutor } from '../platform/db/connection'
import { currentEntries, byDisplayPriority, type RegisterEntry } from '../setups/register'

/** A bike in a class: who sits there, and their numbers as this machine takes them. */
export type Seat = Readonly<{
  bike: StudioBike
  rider: Readonly<{ id: string; name: string }> | null
  marks: Marks | null
  /** How sure they are; null without any. */
  certainty: Certainty | null
  /** What the numbers are for, and why this machine takes other marks than its type; null without a remark. */
  remark: string | null
  /** The type of the rider's numbers, where it is another one. */
  elsewhere: string | null
}>

/** Every bike of a studio in a class, by number. */
export async function listSeats(db: DbExecutor, scope: Scope, classId: string): Promise<Seat[]> {
  const [bikes, assigned] = await Promise.all([listBikes(db, scope), listAssignments(db, scope, classId)])
  const entries = byDisplayPriority(
    await currentEntries(
      db,
      scope,
      assigned.map((a) => a.memberId),
    ),
  )
  return bikes.map((bike) => {
    const rider = assigned.find((a) => a.bikeId === bike.id)
    return {
      bike,
      rider: rider ? { id: rider.memberId, name: rider.name } : null,
      ...numbersAt(
        bike,
        entries.filter(({ memberId }) => memberId === rider?.memberId),
      ),
    }
  })
}

/** A rider's numbers as one machine takes them: of their sets (`own`, those shown first) the one for its type. */
export function numbersAt(
  bike: StudioBike,
  own: readonly RegisterEntry[],
): Pick<Seat, 'marks' | 'certainty' | 'remark' | 'elsewhere'> {
  const entry = own.find(({ lineId }) => lineId === bike.lineId)
  if (!entry) return { marks: null, certainty: null, remark: null, elsewhere: own[0]?.type.name ?? null }
  const here = marksOnMachine(
    { bikeType: entry.type, bike: entry.machineCalibration ?? undefined, marks: entry.marks },
    { bikeType: bike.type, bike: bike.machineCalibration },
  )
  const remarks = [entry.purpose !== 'usual' && PURPOSE_NAME[entry.purpose].toLowerCase(), formatMachineWhy(here)]
  return {
    marks: here.marks,
    certainty: entry.certainty,
    remark: remarks.filter(Boolean).join(', ') || null,
    elsewhere: null,
  }
}
