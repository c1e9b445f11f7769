import { AXES } from '../conventions'
import { AXIS_TITLE } from './phrases'

const FIELD_NAME: readonly (readonly [string, string])[] = [
  ['crankMm', 'Crank'],
  ['axleHeightMm', 'Crank axle'],
  ['pedalSurfaceMm', 'Pedal'],
  ['noseAheadMm', 'Nose ahead'],
  ['lengthMm', 'Saddle length'],
  ['seatOrigin', 'Saddle'],
  ['gripOrigin', 'Bars'],
  ['name', 'Name'],
  ['pedalSpacingMm', 'Between the cranks'],
  ['pedalSides', 'Pedal sides'],
]

/** A JSON pointer into a type in the words of its form. */
export function formatTypePointer(pointer: string): string {
  const axis = AXES.find((name) => pointer.includes(`/${name}`))
  if (axis) return AXIS_TITLE[axis]
  return FIELD_NAME.find(([key]) => pointer.includes(key))?.[1] ?? (pointer === '' ? 'File' : pointer)
}
