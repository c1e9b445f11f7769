import { Matrix, pseudoInverse } from 'ml-matrix'
import { TAPE_SD_MM } from './fitTape'
import { AXIS_OF_LENGTH, LENGTHS, measuredAxesOf, type LengthName, type TapeReading } from './readings'
import type { AxisName } from '../../base/conventions'
import { spacingMm } from '../scale/scale'
import { axisOf, type Bike, type BikeType } from '../bike/bike'
import { contactPoints, resolveMarks } from '../bike/contactPoints'

/** Standard deviation between machines of one type along an axis, mm. Assumption. */
export const MACHINE_SD_MM = 6
/** A later reading off by more than this is reported (trade rule, no source). */
export const DRIFT_MM = 5

export type MachineOffset = Readonly<{
  offsetsMm: Partial<Record<AxisName, number>>
  sdMm: Partial<Record<AxisName, number>>
}>

/** Lengths read minus lengths predicted at those marks, mm. */
export function residualsOf(
  bikeType: BikeType,
  bike: Bike | undefined,
  { marks, lengths }: TapeReading,
): Partial<Record<LengthName, number>> {
  const predicted = contactPoints(bikeType, bike, resolveMarks(bikeType, marks).positions).lengths
  return Object.fromEntries(
    LENGTHS.flatMap((length) => (lengths[length] === undefined ? [] : [[length, lengths[length] - predicted[length]]])),
  )
}

/**
 * One machine's own offset along each axis from one or two tape readings: least squares with the standard
 * deviation between machines as prior, so that an axis without a reading stays at 0 with that standard deviation.
 * `typeSdMm`: standard deviations of the type itself.
 */
export function fitOffset(
  bikeType: BikeType,
  readings: readonly TapeReading[],
  typeSdMm: Bike['sdMm'] = {},
): MachineOffset {
  const axes = measuredAxesOf(bikeType)
  const rows = readings.flatMap((reading) => {
    const residuals = residualsOf(bikeType, undefined, reading)
    const { positions } = resolveMarks(bikeType, reading.marks)
    const slopes = (length: LengthName) =>
      axes.map((name) => {
        const at = (mm: number) => contactPoints(bikeType, { offsetsMm: { [name]: mm } }, positions).lengths[length]
        return (at(0.5) - at(-0.5)) / TAPE_SD_MM
      })
    return LENGTHS.flatMap((length) =>
      residuals[length] === undefined ? [] : [{ gradient: slopes(length), residual: residuals[length] / TAPE_SD_MM }],
    )
  })
  const design = new Matrix([
    ...rows.map((r) => r.gradient),
    ...axes.map((_, i) => axes.map((__, j) => (i === j ? 1 / MACHINE_SD_MM : 0))),
  ])
  const rightHandSide = Matrix.columnVector([...rows.map((r) => r.residual), ...axes.map(() => 0)])
  const covariance = pseudoInverse(design.transpose().mmul(design))
  const solved = covariance.mmul(design.transpose()).mmul(rightHandSide).to1DArray()
  return {
    offsetsMm: Object.fromEntries(axes.map((name, i) => [name, Number(solved[i].toFixed(2))])),
    sdMm: Object.fromEntries(
      axes.map((name, i) => [
        name,
        Number(Math.hypot(Math.sqrt(covariance.get(i, i)), typeSdMm[name] ?? 0).toFixed(2)),
      ]),
    ),
  }
}

/** What most likely happened to a machine whose tape no longer agrees. */
export type Drift = Readonly<{
  length: LengthName
  mm: number
  cause: 'postSlipped' | 'saddleSwapped' | 'wrongMark' | 'barMoved' | 'unexplained'
}>

/** Lengths that disagree with the bike by more than 5 mm, each with its likeliest cause; none when all agree. */
export function detectDrift(bikeType: BikeType, bike: Bike | undefined, reading: TapeReading): Drift[] {
  const residuals = residualsOf(bikeType, bike, reading)
  return LENGTHS.flatMap((length) => {
    const mm = residuals[length]
    return mm === undefined || Math.abs(mm) <= DRIFT_MM
      ? []
      : [{ length, mm, cause: causeOf(bikeType, residuals, length, mm) }]
  })
}

function causeOf(
  bikeType: BikeType,
  residuals: Partial<Record<LengthName, number>>,
  length: LengthName,
  mm: number,
): Drift['cause'] {
  const scale = axisOf(bikeType, AXIS_OF_LENGTH[length])?.scale
  const spacing = scale ? spacingMm(scale) : 0
  const marksOff = spacing > DRIFT_MM ? Math.round(mm / spacing) : 0
  if (marksOff !== 0 && Math.abs(mm - marksOff * spacing) < Math.min(3, 0.15 * spacing)) return 'wrongMark'
  const off = (other: LengthName) => Math.abs(residuals[other] ?? 0) > DRIFT_MM
  if (length === 'saddleHeightMm' && !off('setbackMm')) return mm < 0 ? 'postSlipped' : 'saddleSwapped'
  if (length === 'saddleHeightMm' || length === 'setbackMm') return 'saddleSwapped'
  if (length === 'reachMm' && off('setbackMm')) return 'saddleSwapped'
  return length === 'stackMm' || length === 'reachMm' ? 'barMoved' : 'unexplained'
}
