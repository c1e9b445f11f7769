/** A place on a room's plan, metres: x to the right, y away from the instructor's wall, as seen on the plan. */
export type Place = Readonly<{ xM: number; yM: number }>

/**
 * By how much somebody on a bike must turn to look at a place, degrees from −180 to 180, plus to the right.
 * `headingDeg` 0 faces the instructor's wall, clockwise plus; 0 too for the bike's own place.
 */
export function turnDeg(bike: Place & Readonly<{ headingDeg: number }>, to: Place): number {
  const [x, y] = [to.xM - bike.xM, to.yM - bike.yM]
  if (x === 0 && y === 0) return 0
  const turn = (Math.atan2(x, -y) * 180) / Math.PI - bike.headingDeg
  const wrapped = ((((turn + 180) % 360) + 360) % 360) - 180
  return wrapped === -180 ? 180 : wrapped
}

/** The place of several that is nearest, or null of none. */
export function nearestPlace(from: Place, places: readonly Place[]): Place | null {
  const far = (place: Place) => Math.hypot(place.xM - from.xM, place.yM - from.yM)
  return places.reduce<Place | null>((best, place) => (best && far(best) <= far(place) ? best : place), null)
}
