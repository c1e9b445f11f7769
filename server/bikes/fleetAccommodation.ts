import {
  MAX_TYPES,
  type AccommodationRequest,
  type AccommodationResponse,
} from '../../core/operations/requests/accommodation'
import type { Scope } from '../platform/accounts/scope'
import { staleWhileRevalidate } from '../platform/compute/staleWhileRevalidate'
import type { StudioBike } from './bikes'
import type { TypeVersion } from './versions'

const answers = staleWhileRevalidate<AccommodationResponse>('accommodation', { olderServes: false })

/**
 * Who fits the studio's types under its school, or null while that is computed. Never waits: the page of the bikes
 * calls it as well, so that the answer is there when the page "Who fits" is opened.
 */
export function fleetAccommodation(scope: Scope, request: AccommodationRequest): AccommodationResponse | null {
  if (request.bikeTypes.length === 0 || request.bikeTypes.length > MAX_TYPES) return null
  return answers(scope.studioId, JSON.stringify(request), () => Promise.resolve(request))
}

/** The types that at least one bike of the studio is of, with the number of those bikes. */
export const typesInUse = (types: readonly TypeVersion[], bikes: readonly StudioBike[]) =>
  types.flatMap(({ lineId, bikeType }) => {
    const count = bikes.filter((bike) => bike.lineId === lineId).length
    return count > 0 ? [{ lineId, bikeType, count }] : []
  })
