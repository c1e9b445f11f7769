import { accommodation as accommodationOf, STATURES_MM } from '../../setups/fleet/accommodation'
import { HOLES_BIKE } from '../../testing/meanRider'
import { MAX_TYPES, type AccommodationResponse } from './accommodation'
import { dispatch } from '../dispatch'
import type { ErrorResponse } from '../errorResponse'

const low = { ...HOLES_BIKE, name: 'Low', seatOrigin: { ...HOLES_BIKE.seatOrigin, yMm: 380 } }
const ask = (request: object) => dispatch('accommodation', request) as AccommodationResponse

test('each type is answered as alone, and the fleet serves at least as many as its best type', () => {
  const { types, fleet } = ask({ bikeTypes: [HOLES_BIKE, low] })
  for (const [k, bikeType] of [HOLES_BIKE, low].entries())
    expect(types[k]).toEqual(
      accommodationOf({ bikeType }).map(({ statureMm, all, axes }) => ({ statureMm, all, axes })),
    )
  expect(fleet).toHaveLength(STATURES_MM.length)
  fleet.forEach((share, i) => expect(share).toBeGreaterThanOrEqual(Math.max(types[0][i].all, types[1][i].all)))
  // The low type serves short riders whom the other does not.
  expect(fleet.some((share, i) => share > types[0][i].all)).toBe(true)
})

test('a fleet without types, with too many, or with a window that runs backward is refused by its place', () => {
  const pointers = (request: object) =>
    (dispatch('accommodation', request) as ErrorResponse).error.faults.map(({ pointer }) => pointer)
  expect(pointers({ bikeTypes: [] })).toEqual(['/bikeTypes'])
  expect(pointers({ bikeTypes: Array.from({ length: MAX_TYPES + 1 }, () => HOLES_BIKE) })).toEqual(['/bikeTypes'])
  expect(pointers({ bikeTypes: [HOLES_BIKE], school: { kneeWindowDeg: [35, 25] } })).toEqual(['/school/kneeWindowDeg'])
})
