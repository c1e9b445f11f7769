import { AXES } from '../../base/conventions'
import type { ParsedLabels } from '../../bikes/scale/printed'
import type { Issue } from '../words/issues'
import { AXIS_TITLE } from '../words/phrases'

const FIELD_NAME: readonly (readonly [string, string])[] = [
  ['crankMm', 'Crank'],
  ['axleHeightMm', 'Crank axle'],
  ['pedalSurfacesMm', 'Pedal sides'],
  ['grips', 'Hand positions'],
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

/** Why a field of a type's form is not taken; every one begins with the field's own title. */
export const FIELD_REASON = Object.freeze({
  missing: (title: string) => `${title}: is missing`,
  twice: (title: string, typed: string) => `${title}: “${typed}” stands twice`,
  notALength: (title: string, typed: string) => `${title}: “${typed}” is not a length`,
  notANumber: (title: string, typed: string) => `${title}: “${typed}” is not a number`,
  behindSaddleHeight: () => 'Setback: lies farther back than the saddle height reaches',
  zeroStep: (title: string) => `${title}: a step must be more than 0`,
  notApart: (title: string) => `${title}: marks must lie apart`,
  labels: (title: string, refused: Extract<ParsedLabels, { outcome: 'refused' }>) =>
    `${title}: ${
      {
        empty: 'no marks',
        twice: `${refused.at} stands twice`,
        tooMany: 'more than 60 marks',
        badRange: `“${refused.at}” is no range`,
      }[refused.reason]
    }`,
  issue: ({ pointer, reason }: Issue) => `${formatTypePointer(pointer)}: ${reason}`,
})
