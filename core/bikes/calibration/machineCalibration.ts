import { axesOf, type Bike, type BikeType } from '../bike/bike'
import { contactPoints, resolveMarks } from '../bike/contactPoints'
import type { AxisName } from '../../base/conventions'
import type { BikeReading } from './bikeReading'
import { fitOffset } from './machineOffset'

/** A machine's own offsets, how sure they are and its tilt, with the readings (by index) that they rest on. */
export type MachineCalibration = Readonly<{ bike: Bike; from: readonly number[] }>

/**
 * One machine from everything measured on it, in time order, against the version of its type in force. Tapes before the
 * latest that marks the machine as changed (`resetsBaseline`) no longer count, nor those at marks this version does not
 * have. Without any tape there are no offsets, with the standard deviation between machines. What its riders show of
 * the seat height replaces tapes before it, until a later one. `typeSdMm`: standard deviations of the type.
 */
export function calibrateMachine(
  bikeType: BikeType,
  rows: readonly BikeReading[],
  typeSdMm: Bike['sdMm'] = {},
): MachineCalibration {
  const changed = rows.findLastIndex((row) => row.kind === 'tape' && row.resetsBaseline === true)
  const from = rows.flatMap((row, i) =>
    row.kind === 'tape' && i >= changed && resolveMarks(bikeType, row.marks).issues.length === 0 ? [i] : [],
  )
  const tapes = from.map((i) => rows[i]).flatMap((row) => (row.kind === 'tape' ? [row] : []))
  const calibration = Object.fromEntries(
    axesOf(bikeType).flatMap((axis) => (typeSdMm?.[axis] === undefined ? [] : [[axis, typeSdMm[axis]]])),
  ) as Partial<Record<AxisName, number>>
  const { offsetsMm, sdMm } = fitOffset(bikeType, tapes, calibration)
  const lastOfRiders = rows.findLastIndex((row) => row.kind === 'riders')
  const riders = lastOfRiders > Math.max(-1, ...from) ? rows[lastOfRiders] : undefined
  const byRiders = riders?.kind === 'riders' ? ridersOffset(bikeType, riders, calibration) : null
  const tilt = rows.findLastIndex((row) => row.kind === 'tilt')
  const read = rows[tilt]
  const own = {
    ...(tapes.length > 0 && { offsetsMm }),
    sdMm,
    ...(byRiders && {
      offsetsMm: { ...(tapes.length > 0 && offsetsMm), seatHeight: byRiders.offsetMm },
      sdMm: { ...sdMm, seatHeight: byRiders.sdMm },
    }),
    ...(read?.kind === 'tilt' && {
      tiltDeg: Number((read.deg - read.floorDeg).toFixed(2)),
      tiltAcross: read.across,
    }),
  }
  return { bike: own, from: [...from, ...(byRiders ? [lastOfRiders] : []), ...(tilt < 0 ? [] : [tilt])] }
}

/** The seat height's offset by riders, mm along its axis; null at marks that this version does not have. */
function ridersOffset(
  bikeType: BikeType,
  { marks, saddleHeightMm, sdMm }: Extract<BikeReading, { kind: 'riders' }>,
  typeSdMm: NonNullable<Bike['sdMm']>,
): Readonly<{ offsetMm: number; sdMm: number }> | null {
  const { issues, positions } = resolveMarks(bikeType, marks)
  if (issues.length > 0) return null
  const at = (seatHeight: number) =>
    contactPoints(bikeType, { offsetsMm: { seatHeight } }, positions).lengths.saddleHeightMm
  const offsetMm = (saddleHeightMm - at(0)) / (at(0.5) - at(-0.5))
  return {
    offsetMm: Number(offsetMm.toFixed(2)),
    sdMm: Number(Math.hypot(sdMm, typeSdMm.seatHeight ?? 0).toFixed(2)),
  }
}
