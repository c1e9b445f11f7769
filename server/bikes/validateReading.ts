import type { BikeType } from '../../core/bikes/bike/bike'
import type { BikeReading } from '../../core/bikes/calibration/bikeReading'
import type { TapeReading } from '../../core/bikes/calibration/readings'
import type { Refusal } from '../../core/messages/refusals'
import { requestIssues } from '../../core/operations/dispatch'

/** No saddle leans farther, degrees, and no nose points farther off the frame's line, mm. */
const MAX_TILT_DEG = 30
const MAX_NOSE_OFF_MM = 60

/** Why a reading of the tape is not taken, or null; sent from a page, it may be anything. */
export function tapeRefusal(bikeType: BikeType, sent: TapeReading | null | undefined): Refusal | null {
  const { marks, lengths } = sent ?? {}
  const issues = requestIssues('calibrate', { bikeType, readings: [{ marks, lengths }] })
  if (issues.length > 0) return { code: 'readingIssues', issues }
  return Object.keys(lengths ?? {}).length === 0 ? { code: 'noLength' } : null
}

/** Why something measured on a machine is not taken, or null. */
export function readingRefusal(bikeType: BikeType, row: BikeReading): Refusal | null {
  const within = (value: number, limit: number) => Number.isFinite(value) && Math.abs(value) <= limit
  switch (row.kind) {
    case 'tape':
      return tapeRefusal(bikeType, row)
    case 'tilt':
      return within(row.deg, MAX_TILT_DEG) && within(row.floorDeg, MAX_TILT_DEG) ? null : { code: 'angleOutOfRange' }
    case 'saddleLine':
      return within(row.mm, MAX_NOSE_OFF_MM) ? null : { code: 'noseOutOfRange' }
    case 'riders':
      // Offsets by riders are computed here and accepted by their own command, never sent.
      return { code: 'unknownReading' }
  }
}

/** A reading as stored: its own fields only. Null where it is none this version knows. */
export function validFieldsOf(row: BikeReading): BikeReading | null {
  switch (row.kind) {
    case 'tape': {
      const { kind, marks, lengths } = row
      return row.resetsBaseline === true ? { kind, resetsBaseline: true, marks, lengths } : { kind, marks, lengths }
    }
    case 'tilt': {
      const { kind, deg, floorDeg } = row
      return { kind, deg, floorDeg, across: row.across === 'frontHalf' ? 'frontHalf' : 'highestPoints' }
    }
    case 'saddleLine':
      return { kind: 'saddleLine', mm: row.mm, afterClosing: row.afterClosing === true }
    default:
      return null
  }
}
