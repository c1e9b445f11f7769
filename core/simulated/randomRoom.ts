import type { BikeType } from '../bikes/bike/bike'
import type { AxisName, Label, Marks } from '../base/conventions'
import type { ClassRoom, FloorRider } from '../classes/planning/room'
import { createRng } from '../base/rng'
import { positionsOf } from '../bikes/scale/scale'

/** Bikes a row of the room. */
const A_ROW = 8

/**
 * A room with so many bikes of these types in rows of eight, some turned a little and a few faulty, and so many riders
 * of every kind; seeded.
 */
export function randomRoom(
  types: Readonly<Record<string, BikeType>>,
  seed: number,
  bikeCount: number,
  riderCount: number,
): ClassRoom {
  const random = createRng(seed)
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random.uniform() * all.length)]
  const names = Object.keys(types)
  const bikes = Array.from({ length: bikeCount }, (_, i) => ({
    id: `bike ${i + 1}`,
    type: pick(names),
    xM: 1.2 * (i % A_ROW) - 4.2,
    yM: 2 + 1.6 * Math.floor(i / A_ROW),
    headingDeg: 40 * random.uniform() - 20,
    inService: random.uniform() > 0.05,
  }))
  const marksOn = ({ axes }: BikeType): Marks =>
    Object.fromEntries(
      Object.entries(axes).map(([axis, { scale }]): [AxisName, Label] => [
        axis as AxisName,
        pick(positionsOf(scale)).label,
      ]),
    )
  const riders = Array.from({ length: riderCount }, (_, i): FloorRider => {
    const withNumbers = names.filter(() => random.uniform() < 0.5)
    return {
      id: `rider ${i + 1}`,
      marksByType: Object.fromEntries(withNumbers.map((name) => [name, marksOn(types[name])])),
      setup: pick(['none', 'none', 'recheck', 'new'] as const),
      arrivesMin: -25 + Math.floor(25 * random.uniform()),
      ...(random.uniform() < 0.4 && { lastBike: pick(bikes).id }),
      ...(random.uniform() < 0.3 && { row: pick(['front', 'back'] as const) }),
      avoidTwist: random.uniform() < 0.2,
    }
  })
  const room = { instructor: { xM: 0, yM: 0 }, screens: [{ xM: 5, yM: 1 }] }
  return { types, bikes, riders, room, hands: 2, doorsMin: -20, startMin: 0 }
}
