import { axesOf, axisOf, type BikeType } from '../bike/bike'
import { contactPoints, resolveMarks } from '../bike/contactPoints'
import type { AxisName, Label } from '../../base/conventions'
import { positionsOf } from '../scale/scale'
import type { Observation } from './readings'

/** What most likely went wrong with a number that does not fit. */
export type OutlierReason =
  | Readonly<{ code: 'otherMark'; axis: AxisName; label: Label }>
  | Readonly<{ code: 'roundCentimetres'; mm: number }>
  | Readonly<{ code: 'inches' | 'tenfold' | 'unexplained' }>

/** A cause explains a number when it brings it within this of the fit, mm. */
const EXPLAINED_MM = 3

/**
 * The likeliest cause of one number's miss (read − fitted) on the fitted type: a wrong unit, a neighbouring mark, a
 * slipped ten.
 */
export function outlierReason(bikeType: BikeType, { length, mm, marks }: Observation, missMm: number): OutlierReason {
  const fittedMm = mm - missMm
  if (Math.abs(mm * 10 - fittedMm) < 10 * EXPLAINED_MM && Math.abs(fittedMm) > 100) return { code: 'tenfold' }
  if (Math.abs(mm * 25.4 - fittedMm) < 25 && Math.abs(fittedMm) > 100) return { code: 'inches' }
  const tens = Math.round(missMm / 10) * 10
  if (tens !== 0 && tens % 50 === 0 && Math.abs(missMm - tens) < EXPLAINED_MM)
    return { code: 'roundCentimetres', mm: tens }
  const neighbour = neighbourThatFits(bikeType, { length, mm, marks })
  if (neighbour) return { code: 'otherMark', ...neighbour }
  if (tens !== 0 && Math.abs(missMm - tens) < EXPLAINED_MM / 2) return { code: 'roundCentimetres', mm: tens }
  return { code: 'unexplained' }
}

function neighbourThatFits(
  bikeType: BikeType,
  { length, mm, marks }: Pick<Observation, 'length' | 'mm' | 'marks'>,
): { axis: AxisName; label: Label } | null {
  for (const axis of axesOf(bikeType)) {
    const label = marks[axis]
    if (label === undefined) continue
    const positions = positionsOf(axisOf(bikeType, axis)!.scale)
    const current = resolveMarks(bikeType, marks).positions
    const index = positions.findIndex((position) => Math.abs(position.mm - current[axis]!) < 1e-9)
    for (const other of [positions[index - 1], positions[index + 1]]) {
      if (!other) continue
      const there = contactPoints(bikeType, undefined, { ...current, [axis]: other.mm }).lengths[length]
      if (Math.abs(there - mm) < EXPLAINED_MM) return { axis, label: other.label }
    }
  }
  return null
}
