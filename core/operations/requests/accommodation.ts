import { Type } from '@sinclair/typebox'
import { bikeTypeRef } from '../../bikes/bike/bike'
import { accommodation as accommodationOf, fleetAccommodation, STATURES_MM } from '../../setups/fleet/accommodation'
import type { AccommodationAtStature } from '../../setups/fleet/accommodation'
import type { Issue } from '../../messages/words/issues'
import { closed, type Plain } from '../../base/schema'
import { schoolSchema } from '../../base/school/school'
import { bikeTypeIssues } from './bikeIssues'
import { schoolIssues } from './studioSettings'

/** Types that one request may name. */
export const MAX_TYPES = 24

/** Request of `accommodation`: the types of a fleet, and whose windows count. */
export const accommodationSchema = closed({
  bikeTypes: Type.Array(bikeTypeRef, { minItems: 1, maxItems: MAX_TYPES }),
  school: Type.Optional(schoolSchema),
  seed: Type.Optional(Type.Integer({ minimum: -2147483648, maximum: 2147483647 })),
})
export type AccommodationRequest = Plain<typeof accommodationSchema>

/** Of riders of one stature, the shares (0 to 1) who find a mark on a type: on every axis together, and on each. */
export type TypeAccommodation = Omit<AccommodationAtStature, 'riders'>
export type AccommodationResponse = Readonly<{
  /** By type as requested, then by stature (`STATURES_MM`). */
  types: readonly (readonly TypeAccommodation[])[]
  /** By stature, the share who find all their marks on at least one of the types. */
  fleet: readonly number[]
}>

/** `accommodation`: for every stature the share of riders who find their marks, by type and for the whole fleet. */
export function accommodation(
  { bikeTypes, school, seed }: AccommodationRequest,
  onProgress: (share: number) => void = () => undefined,
): AccommodationResponse {
  const byType = bikeTypes.map((bikeType, k) =>
    accommodationOf({ bikeType, school, seed }, (done, of) => onProgress((k + done / of) / bikeTypes.length)),
  )
  return {
    types: byType.map((fits) => fits.map(({ statureMm, all, axes }) => ({ statureMm, all, axes }))),
    fleet: STATURES_MM.map((_, i) => fleetAccommodation(byType.map((fits) => fits[i]))),
  }
}

export function accommodationIssues({ bikeTypes, school }: AccommodationRequest): Issue[] {
  return [
    ...schoolIssues(school ?? {}, '/school'),
    ...bikeTypes.flatMap((bikeType, i) => bikeTypeIssues(bikeType, `/bikeTypes/${i}`)),
  ]
}
