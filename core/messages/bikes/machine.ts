import type { BikeType } from '../../bikes/bike/bike'
import type { InspectionItem, InspectionState } from '../../bikes/bike/inspection'
import type { TiltAssessment } from '../../bikes/bike/tilt'
import type { BikeReading } from '../../bikes/calibration/bikeReading'
import type { TypeCalibration } from '../../bikes/calibration/calibrate'
import type { Drift } from '../../bikes/calibration/machineOffset'
import { LENGTHS } from '../../bikes/calibration/readings'
import type { PooledResidual } from '../../setups/learning/machineResiduals'
import type { UnitSystem } from '../../base/length'
import { LENGTH_NAME } from './calibration'
import { formatMarks } from '../words/labels'
import { capitalized, formatLength } from '../words/phrases'

const CAUSE: Readonly<Record<Drift['cause'], string>> = {
  postSlipped: 'the post may have slipped',
  saddleSwapped: 'the saddle may have been swapped or moved on its rails',
  wrongMark: 'just a mark apart: look whether the right one was read',
  barMoved: 'the bars may have been moved or turned',
  unexplained: 'measure again',
}

/** "Saddle height reads 9 mm less than this bike’s last tape: the post may have slipped." */
export function formatDrift({ length, mm, cause }: Drift, shown: UnitSystem): string {
  return (
    `${capitalized(LENGTH_NAME[length])} reads ${formatLength(mm, shown)} ` +
    `${mm > 0 ? 'more' : 'less'} than this bike’s last tape: ${CAUSE[cause]}.`
  )
}

/** What a round looks at, and what is good. */
export const INSPECTION_ITEM_TEXT: Readonly<Record<InspectionItem, readonly [string, string]>> = {
  pins: ['Pins and levers', 'hold when shaken'],
  bars: ['Bars', 'do not roll'],
  saddle: ['Saddle', 'straight, does not turn'],
  insertion: ['Insertion marks', 'covered'],
  pedals: ['Pedals and straps', 'tight, whole'],
  cleats: ['Cleat side', 'clips in and out'],
  feet: ['Feet', 'level, none in the air'],
  stop: ['Stop', 'stops the wheel at once'],
}

/** "good until 7 Dec", "due since …", "out of use", in the studio's own days. */
export function formatInspectionState(state: InspectionState, timeZone: string): string {
  if (state.outcome === 'faulty') return 'out of use'
  if (state.outcome === 'never') return 'never looked over'
  const day = new Intl.DateTimeFormat('en-GB', { timeZone, day: 'numeric', month: 'short' }).format(state.dueAtMs)
  return state.outcome === 'due' ? `due since ${day}` : `good until ${day}`
}

/** The same as a sentence of its own, with what being out of use means. */
export const formatMachineState = (state: InspectionState, timeZone: string): string =>
  state.outcome === 'faulty'
    ? 'Out of use until its faults are mended; it is not offered for set-ups.'
    : `${capitalized(formatInspectionState(state, timeZone))}.`

/** "saddle nose up": a tilt that is off, in a few words. */
export const formatTiltFault = ({ outcome }: TiltAssessment): string =>
  `saddle nose ${outcome === 'noseUp' ? 'up' : 'down'}`

/** "Its seat stands about 8 mm lower than its marks say (5 to 11 mm), by 14 riders checked here and elsewhere." */
export function formatResidual({ mm, fromMm, toMm, riders }: PooledResidual, shown: UnitSystem): string {
  const [least, most] = [fromMm, toMm].map(Math.abs).sort((a, b) => a - b)
  return (
    `Its seat stands about ${formatLength(mm, shown)} ${mm < 0 ? 'lower' : 'higher'} than its marks say ` +
    `(${formatLength(least, shown)} to ${formatLength(most, shown)}), by ${riders} riders checked here and elsewhere.`
  )
}

/** "seat 8 mm low": the same in a few words. */
export const formatResidualBriefly = ({ mm }: PooledResidual): string =>
  `seat ${formatLength(mm)} ${mm < 0 ? 'low' : 'high'}`

/** How precisely a type is measured. */
export const formatCalibrationQuality = (calibration: TypeCalibration | null): string =>
  calibration
    ? `good to ${Math.max(...Object.values(calibration.expectedErrorMm)).toFixed(0)} mm, ` +
      `${calibration.readings} readings`
    : 'as described, not measured yet'

/** One line of what was measured: "Tape at 7 · D: stack 702 mm". */
export function formatBikeReading(bikeType: BikeType, row: BikeReading): string {
  switch (row.kind) {
    case 'tilt':
      return (
        `Saddle ${row.deg}° over ` +
        `${row.across === 'frontHalf' ? 'its front half' : 'its two highest points'}, floor ` +
        `${row.floorDeg}°`
      )
    case 'riders':
      return (
        `By ${row.riders} riders at ${formatMarks(bikeType, row.marks)}: ${LENGTH_NAME.saddleHeightMm} ` +
        `${Math.round(row.saddleHeightMm)} mm, until a tape is laid`
      )
    case 'saddleLine': {
      const line = row.mm === 0 ? 'straight' : `nose ${Math.abs(row.mm)} mm to the ${row.mm > 0 ? 'right' : 'left'}`
      return `Saddle ${line}, ${row.afterClosing ? 'after' : 'before'} closing`
    }
    case 'tape': {
      const lengths = LENGTHS.flatMap((length) =>
        row.lengths[length] === undefined ? [] : [`${LENGTH_NAME[length]} ${row.lengths[length]} mm`],
      )
      return (
        `Tape at ${formatMarks(bikeType, row.marks)}: ${lengths.join(', ')}` +
        `${row.resetsBaseline ? '; the bike had changed' : ''}`
      )
    }
  }
}
