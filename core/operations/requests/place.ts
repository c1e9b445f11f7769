import { axesOf, bikeRef, bikeTypeRef } from '../../bikes/bike/bike'
import { contactPoints, resolveMarks, type ContactPoints } from '../../bikes/bike/contactPoints'
import { marksRef, type AxisName } from '../../base/conventions'
import type { Issue } from '../../messages/words/issues'
import { closed, type Plain } from '../../base/schema'
import { Type } from '@sinclair/typebox'
import { bikeIssues, bikeTypeIssues, marksIssues } from './bikeIssues'

export const placeSchema = closed({ bikeType: bikeTypeRef, bike: Type.Optional(bikeRef), marks: marksRef })
export type PlaceRequest = Plain<typeof placeSchema>
export type PlaceResponse = ContactPoints & Readonly<{ assumed: AxisName[] }>

/** `place`: seat, nose, grip and the tape's four lengths; axes left out count as 0 mm and are named. */
export function place({ bikeType, bike, marks }: PlaceRequest): PlaceResponse {
  const { positions } = resolveMarks(bikeType, marks)
  return {
    ...contactPoints(bikeType, bike, positions),
    assumed: axesOf(bikeType).filter((name) => marks[name] === undefined),
  }
}

export function placeIssues({ bikeType, bike, marks }: PlaceRequest): Issue[] {
  return [
    ...bikeTypeIssues(bikeType, '/bikeType'),
    ...bikeIssues(bikeType, bike, '/bike'),
    ...marksIssues(bikeType, marks, '/marks'),
  ]
}
