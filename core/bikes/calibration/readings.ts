import { Type } from '@sinclair/typebox'
import type { AxisName } from '../../base/adjustments'
import { axesOf, type BikeType } from '../bike/bike'
import type { Lengths } from '../bike/contactPoints'
import { marksRef, type Marks } from '../../base/conventions'
import { between, closed, type Plain } from '../../base/schema'

/** The tape at one setting of the bike: which marks, and whichever of the four lengths were read, mm. */
export const tapeReadingSchema = closed({
  marks: marksRef,
  // A saddle or a bar below the axle cannot be.
  lengths: closed({
    saddleHeightMm: Type.Optional(between(1, 3000)),
    setbackMm: Type.Optional(between(-1000, 2000)),
    reachMm: Type.Optional(between(1, 3000)),
    stackMm: Type.Optional(between(1, 3000)),
  }),
})
export type TapeReading = Plain<typeof tapeReadingSchema>
export type LengthName = keyof Lengths

export const LENGTHS = ['saddleHeightMm', 'setbackMm', 'reachMm', 'stackMm'] as const satisfies readonly LengthName[]

/** The length that represents an axis' expected error: the one that mostly follows it; null where none does. */
export const LENGTH_OF_AXIS: Readonly<Record<AxisName, LengthName | null>> = Object.freeze({
  seatHeight: 'saddleHeightMm',
  seatSlide: 'setbackMm',
  barHeight: 'stackMm',
  barSlide: 'reachMm',
  frameHeight: 'saddleHeightMm',
  frameSlide: 'setbackMm',
  seatExtra: 'saddleHeightMm',
  barExtra: 'stackMm',
  crankLength: null,
  saddleTilt: null,
  barTurn: 'stackMm',
})

/** The axes of a type that a tape sees: cranks and tilt leave the four lengths as they are. */
export const measuredAxesOf = (bikeType: BikeType): AxisName[] =>
  axesOf(bikeType).filter((axis) => LENGTH_OF_AXIS[axis] !== null)

/** The axis a length mostly follows. */
export const AXIS_OF_LENGTH = Object.freeze({
  saddleHeightMm: 'seatHeight',
  setbackMm: 'seatSlide',
  reachMm: 'barSlide',
  stackMm: 'barHeight',
} as const)

/** One number read off the tape, with where it came from. */
export type Observation = Readonly<{ reading: number; length: LengthName; mm: number; marks: Marks }>

/** Every number of all readings, in order. */
export function observationsOf(readings: readonly TapeReading[]): Observation[] {
  return readings.flatMap(({ marks, lengths }, reading) =>
    LENGTHS.flatMap((length) =>
      lengths[length] === undefined ? [] : [{ reading, length, mm: lengths[length], marks }],
    ),
  )
}

/**
 * Setback with the bike's back to a wall: wall → axle minus wall → nose, mm; plus is the nose behind the axle.
 * Common practice, no source.
 */
export const setbackFromWall = (wallToAxleMm: number, wallToNoseMm: number): number => wallToAxleMm - wallToNoseMm

/** Reach from the seat point of a tape that started at the saddle's nose, mm. */
export const reachFromNose = (noseToGripMm: number, noseAheadMm: number): number => noseToGripMm + noseAheadMm
