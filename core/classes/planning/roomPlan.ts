import { Type } from '@sinclair/typebox'
import { between, closed, type Plain } from '../../base/schema'

const metres = between(0, 60)
const place = closed({ xM: metres, yM: metres })
const places = Type.Array(place, { maxItems: 12 })

/** A room to scale, metres: x to the right, y away from the instructor's wall. */
export const roomPlanSchema = closed({
  widthM: between(3, 60),
  depthM: between(3, 60),
  instructor: place,
  screens: places,
  doors: places,
  fans: places,
})
export type RoomPlan = Plain<typeof roomPlanSchema>

/** Place and heading of a bike: 0 faces the instructor's wall, clockwise plus, −179 to 180. */
export const floorPositionSchema = closed({ xM: metres, yM: metres, headingDeg: between(-180, 180) })
export type FloorPosition = Plain<typeof floorPositionSchema>

/** Half a bike with its rider's elbows, from its middle, metres (common practice, no source). */
export const BIKE_HALF_M = Object.freeze({ across: 0.3, along: 0.65 })
/** What is put down lands on marks so far apart. */
export const SNAP_M = 0.25
export const SNAP_DEG = 5

export const snapM = (m: number): number => Math.round(m / SNAP_M) * SNAP_M
/** A heading between −179 and 180 on the next mark. */
export function snapDeg(deg: number): number {
  const snapped = Math.round(deg / SNAP_DEG) * SNAP_DEG
  const turned = ((((snapped + 180) % 360) + 360) % 360) - 180
  return turned === -180 ? 180 : turned
}

/** A place within the room, a bike's half width from its walls. */
export function withinRoom<P extends Readonly<{ xM: number; yM: number }>>(
  { widthM, depthM }: Pick<RoomPlan, 'widthM' | 'depthM'>,
  at: P,
): P {
  const clamped = (m: number, most: number) => Math.min(most - BIKE_HALF_M.across, Math.max(BIKE_HALF_M.across, m))
  return { ...at, xM: clamped(at.xM, widthM), yM: clamped(at.yM, depthM) }
}

/** Pairs of bikes too close for two riders. */
export function overlappingBikes(places: readonly (FloorPosition & Readonly<{ id: string }>)[]): [string, string][] {
  const nearest = 2 * BIKE_HALF_M.across
  return places.flatMap((a, i) =>
    places
      .slice(i + 1)
      .filter((b) => Math.hypot(a.xM - b.xM, a.yM - b.yM) < nearest - 1e-9)
      .map((b): [string, string] => [a.id, b.id]),
  )
}

/**
 * Bikes in rows before the instructor, the first ones in front, all turned toward the instructor's place; rows as long
 * as the room is wide, filled evenly.
 */
export function arrangeInRows(plan: RoomPlan, ids: readonly string[]): (FloorPosition & Readonly<{ id: string }>)[] {
  if (ids.length === 0) return []
  const front = Math.min(plan.depthM - 1, plan.instructor.yM + 2)
  const deep = Math.max(1, plan.depthM - 1 - front)
  const mostAcross = Math.max(1, Math.floor((plan.widthM - 1) / 1.1))
  const rows = Math.max(1, Math.ceil(ids.length / mostAcross))
  const across = Math.ceil(ids.length / rows)
  return ids.map((id, i) => {
    const row = Math.floor(i / across)
    const inRow = Math.min(across, ids.length - row * across)
    const gap = plan.widthM / (inRow + 1)
    const xM = gap * ((i % across) + 1)
    const yM = front + (rows === 1 ? 0 : (deep * row) / (rows - 1))
    const toward = (Math.atan2(plan.instructor.xM - xM, yM - plan.instructor.yM) * 180) / Math.PI
    const at = withinRoom(plan, { xM: Math.round(xM * 100) / 100, yM: Math.round(yM * 100) / 100 })
    return { id, ...at, headingDeg: snapDeg(toward) }
  })
}
