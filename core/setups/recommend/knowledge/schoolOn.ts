import { SEAT_AXES } from '../../../base/adjustments'
import { unitVector } from '../../../base/geometry'
import type { School } from '../../../base/school/school'
import type { BikeType } from '../../../bikes/bike/bike'

/** An axis nearer to level than this counts as one that moves the saddle fore and aft. */
const LEVEL_SHARE = 0.5

/** The school as it can be followed on a type: where nothing moves the saddle fore and aft, no plumb line decides. */
export function schoolOn({ axes }: BikeType, school: School): School {
  if (axes.seatSlide) return school
  const slides = SEAT_AXES.some((axis) => axes[axis] && Math.abs(unitVector(axes[axis].directionDeg).x) > LEVEL_SHARE)
  return slides ? school : { ...school, foreAft: 'unused' }
}
