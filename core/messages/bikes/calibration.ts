import type { InputWarning } from '../../bikes/calibration/progress'
import type { Refused, Outlier } from '../../bikes/calibration/calibrate'
import type { PriorOutlier } from '../../bikes/calibration/parameters'
import type { LengthName, TapeReading } from '../../bikes/calibration/readings'
import type { TapeSlip } from '../../bikes/calibration/slips'
import { axesOf, type BikeType } from '../../bikes/bike/bike'
import type { Marks } from '../../base/conventions'
import { formatBikeLength, type UnitSystem } from '../../base/length'
import { formatLabel } from '../words/labels'
import { AXIS_NAME, axisName, capitalized, formatDegrees, formatLength, formatList } from '../words/phrases'

/** The tape's four lengths as spoken. */
export const LENGTH_NAME: Readonly<Record<LengthName, string>> = Object.freeze({
  saddleHeightMm: 'saddle height',
  setbackMm: 'setback',
  reachMm: 'reach',
  stackMm: 'stack',
})

/** "Set the seat height at 1, the seat slide at A …, then take the four lengths." */
export function formatDesignPoint(bikeType: BikeType, marks: Marks): string {
  const parts = axesOf(bikeType).flatMap((axis) =>
    marks[axis] === undefined ? [] : [`the ${axisName(bikeType, axis)} at ${formatLabel(bikeType, axis, marks[axis])}`],
  )
  return `Set ${formatList(parts)}; then take the four lengths.`
}

/** Why one number does not fit, and to measure it again. */
export function formatOutlier(
  bikeType: BikeType,
  readings: readonly TapeReading[],
  { reading, length, mm, reason, orReading }: Outlier,
  shown: UnitSystem = 'metric',
): string {
  if (orReading !== undefined) {
    const [first, second] = [reading + 1, orReading + 1].sort((a, b) => a - b)
    return `Readings ${first} and ${second} do not agree on the ${LENGTH_NAME[length]}: read both again.`
  }
  const read = formatBikeLength(readings[reading].lengths[length]!, shown)
  const off =
    `Reading ${reading + 1}: ${LENGTH_NAME[length]} ${read} lies ${formatLength(mm, shown)} ` +
    `${mm > 0 ? 'over' : 'under'} what the others say`
  switch (reason.code) {
    case 'otherMark':
      return (
        `${off}, and fits ${AXIS_NAME[reason.axis]} ` +
        `${formatLabel(bikeType, reason.axis, reason.label)}. Look at the mark and measure again.`
      )
    case 'tenfold':
      return `${off}, just a tenth. Read in centimetres? Measure again.`
    case 'inches':
      return `${off}. Read in inches? Measure again.`
    case 'roundCentimetres':
      return (
        `${off}: ${reason.mm % 50 === 0 ? 'a whole stretch of the tape' : 'a whole centimetre'} ` +
        'misread? Measure again.'
      )
    case 'unexplained':
      return `${off}. Measure it again.`
  }
}

/** Why there is no calibration yet. */
export function formatCalibrationRefusal(bikeType: BikeType, refused: Refused): string {
  switch (refused.reason) {
    case 'noReadings':
      return 'Nothing was measured yet.'
    case 'tooFewMarks':
      return (
        `The ${axisName(bikeType, refused.axis)} was read at ` +
        `${formatLabel(bikeType, refused.axis, refused.label)} only; read it at a second mark ` +
        'far from there.'
      )
    case 'cannotTellApart': {
      const [a, b] = refused.axes.map((axis) => axisName(bikeType, axis))
      return (
        `These readings cannot tell ${a} and ${b} apart: move the one and leave the other where it is, ` +
        'and read all four lengths.'
      )
    }
    case 'halfSuspect':
      return (
        `${refused.count} of ${refused.of} readings of the ${LENGTH_NAME[refused.length]} do not ` +
        'go with the others, so neither half can be believed. Take them back and measure the ' +
        `${LENGTH_NAME[refused.length]} again.`
      )
    case 'tooManySuspects':
      return (
        `${refused.count} numbers do not go together. Look whether a label or a direction of ` +
        'this type is the other way round, and begin anew with a few careful readings.'
      )
  }
}

/** A question about a number before it is stored: "Saddle height 70 mm? About 700 mm was expected. Meant 700 mm?" */
export function formatInputWarning({ length, mm, expectedMm, code }: InputWarning, shown: UnitSystem): string {
  const text =
    `${capitalized(LENGTH_NAME[length])} ${formatBikeLength(mm, shown)}, where about ` +
    `${formatBikeLength(expectedMm, shown)} was expected`
  if (code === 'tenfold') return `${text}: was ${formatBikeLength(10 * mm, shown)} meant?`
  return code === 'inches' ? `${text}: was it read in inches?` : `${text}: is that right?`
}

/** What came out farther from the type's description than a careful guess strays. */
export function formatStray(stray: PriorOutlier, shown: UnitSystem = 'metric'): string {
  const look = 'more than a careful guess is off'
  switch (stray.code) {
    case 'origin':
      return (
        `By these readings the ${stray.point} stands ` +
        `${formatLength(Math.hypot(stray.xMm, stray.yMm), shown)} from where this type has it: ` +
        `${look}.`
      )
    case 'direction':
      return (
        `By these readings the ${AXIS_NAME[stray.axis]} runs ` +
        `${formatDegrees(Math.abs(stray.deg))} otherwise than this type has it: ${look}.`
      )
    case 'spacing':
      return (
        `By these readings the marks of the ${AXIS_NAME[stray.axis]} lie ` +
        `${Math.round(100 * Math.abs(stray.share))} % ${stray.share > 0 ? 'wider' : 'closer'} ` +
        `than this type has them: ${look}.`
      )
  }
}

/** What all readings may have in common that explains it, and what to do. */
export function formatSlip(bikeType: BikeType, slip: TapeSlip, shown: UnitSystem = 'metric'): string {
  switch (slip.code) {
    case 'reachFromNose':
      return (
        'Every reach is short by the saddle’s nose, ' +
        `${formatLength(bikeType.saddle.noseAheadMm, shown)}: was the tape held at the nose?`
      )
    case 'stackFromFloor':
      return (
        `Every stack is long by the axle’s height, ${formatLength(bikeType.axleHeightMm, shown)}` +
        ': was it measured from the floor?'
      )
    case 'heightFromPedal':
      return (
        `Every saddle height is long by a crank, ${formatLength(bikeType.crankMm, shown)}: was ` +
        'it measured from the pedal?'
      )
    case 'setbackSign':
      return 'Every setback fits with its sign turned: plus is the nose behind the axle.'
    case 'centimetres':
      return 'All numbers fit as centimetres.'
    case 'inches':
      return 'All numbers fit as inches.'
    case 'reversedLabels':
      return (
        `The labels of the ${axisName(bikeType, slip.axis)} run the other way on this bike: turn them ` +
        'round in the type’s description, then lay the tape again.'
      )
  }
}
