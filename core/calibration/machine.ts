import { axesOf, type Bike, type BikeType } from '../bike/bike'
import { positionsOf } from '../bike/place'
import type { AxisName } from '../conventions'
import type { BikeReading } from './bikeReading'
import { offsetFrom } from './offset'

/** A machine's own offsets, how sure they are and its tilt, with the readings (by index) that they rest on. */
export type MachineCalibration = Readonly<{ own: Bike; from: readonly number[] }>

/**
 * One machine from everything measured on it, in time order, against the version of its type in force. Tapes before the
 * latest that says the machine has changed (`anew`) no longer count, nor those at marks this version does not have.
 * Without any tape the offsets are none and as unsure as machines of a type are. `typeSdMm` is what is known of the type.
 */
export function machineFrom(
  bikeType: BikeType,
  rows: readonly BikeReading[],
  typeSdMm: Bike['sdMm'] = {},
): MachineCalibration {
  const changed = rows.findLastIndex((row) => row.kind === 'tape' && row.anew === true)
  const from = rows.flatMap((row, i) =>
    row.kind === 'tape' && i >= changed && positionsOf(bikeType, row.marks).faults.length === 0 ? [i] : [],
  )
  const tapes = from.map((i) => rows[i]).flatMap((row) => (row.kind === 'tape' ? [row] : []))
  const known = Object.fromEntries(
    axesOf(bikeType).flatMap((axis) => (typeSdMm?.[axis] === undefined ? [] : [[axis, typeSdMm[axis]]])),
  ) as Partial<Record<AxisName, number>>
  const { offsetsMm, sdMm } = offsetFrom(bikeType, tapes, known)
  const tilt = rows.findLastIndex((row) => row.kind === 'tilt')
  const read = rows[tilt]
  const own = {
    ...(tapes.length > 0 && { offsetsMm }),
    sdMm,
    ...(read?.kind === 'tilt' && { tiltDeg: Number((read.deg - read.floorDeg).toFixed(2)) }),
  }
  return { own, from: tilt < 0 ? from : [...from, tilt] }
}
