import { bottomCrankDeg, type Bike, type BikeType } from '@/core/bikes/bike/bike'
import { contactPoints, resolveMarks } from '@/core/bikes/bike/contactPoints'
import type { Marks, Point } from '@/core/base/conventions'
import { saddleOn } from '@/core/bikes/saddles/saddle'
import { crankMmAt, handTiltDeg } from '@/core/bikes/bike/standing'
import { unitVector, intersectCircles, offsetPoint, radians } from '@/core/base/geometry'
import { pedalAt, poseAt, type Posed, type Rider, type UnreachablePose } from '@/core/riders/kinematics/pose'
import { positionsOf, type Scale } from '@/core/bikes/scale/scale'

/** The bike alone, in its own frame, mm. */
export type BikeScene = Readonly<{
  seat: Point
  nose: Point
  tail: Point
  grip: Point
  /** Foot of the seat post and of the bar post on the frame. */
  seatTube: readonly [Point, Point]
  barTube: readonly [Point, Point]
  floorYMm: number
  pedal: Point
  frame: Readonly<{ leftMm: number; rightMm: number; topMm: number; bottomMm: number }>
}>

/** Everything the side view draws. */
export type SideScene = BikeScene &
  Readonly<{
    near: Posed | UnreachablePose
    far: Posed | UnreachablePose
    nearElbow: Point | null
    pedalSurfaceMm: number
  }>

/** Widest any rider and bike of this type can draw, so that the picture does not move while marks do. */
const ABOVE_SEAT_MM = 860
/** Shoulder to above the crown, upright. */
const HEAD_MM = 250

/** The bike at these marks, crank at the bottom check. The frame is that of its highest saddle and bars. */
export function bikeScene(bikeType: BikeType, bike: Bike, marks: Marks): BikeScene {
  const { seat, nose: level, grip } = contactPoints(bikeType, bike, resolveMarks(bikeType, marks).positions)
  // A saddle tilted by hand is drawn tilted, about the seat point.
  const riseShare = Math.tan(radians(handTiltDeg(bikeType, marks)))
  const { noseAheadMm, lengthMm } = saddleOn(bikeType, bike)
  const nose = offsetPoint(level, 0, riseShare * noseAheadMm)
  const tailXMm = nose.xMm - lengthMm
  const floorYMm = -bikeType.axleHeightMm
  return {
    seat,
    nose,
    tail: { xMm: tailXMm, yMm: level.yMm + riseShare * (tailXMm - seat.xMm) },
    grip,
    seatTube: tube(offsetPoint(seat, 0, -60), bikeType.axes.seatHeight.directionDeg, 190),
    barTube: tube(offsetPoint(grip, -60, -40), Math.max(95, bikeType.axes.barHeight.directionDeg), 120),
    floorYMm,
    pedal: pedalAt(crankMmAt(bikeType, marks), bottomCrankDeg(bikeType)),
    frame: { leftMm: -520, rightMm: 780, topMm: seatTop(bikeType) + 240, bottomMm: floorYMm - 40 },
  }
}

/** The bike at these marks with the rider on it, near crank at `crankDeg` (the bottom check when left out). */
export function sideScene(bikeType: BikeType, bike: Bike, marks: Marks, rider: Rider, crankDeg?: number): SideScene {
  const scene = bikeScene(bikeType, bike, marks)
  const { seat, grip } = scene
  const deg = crankDeg ?? bottomCrankDeg(bikeType)
  const crank = { crankMm: crankMmAt(bikeType, marks), pedalSurfaceMm: bikeType.pedalSurfaceMm }
  const near = poseAt(rider, { seat, grip }, crank, deg)
  return {
    ...scene,
    near,
    far: poseAt(rider, { seat, grip }, crank, deg + 180),
    nearElbow: near.outcome === 'posed' ? elbowOf(near.shoulder, grip, rider) : null,
    pedal: pedalAt(crank.crankMm, deg),
    pedalSurfaceMm: bikeType.pedalSurfaceMm,
    frame: {
      ...scene.frame,
      topMm: Math.max(seatTop(bikeType) + ABOVE_SEAT_MM, seat.yMm + rider.hipAboveSeatMm + rider.trunkMm + HEAD_MM),
    },
  }
}

/** The post from under the part down to a height above the axle, along its own direction. */
function tube(top: Point, directionDeg: number, endYMm: number): readonly [Point, Point] {
  const u = unitVector(directionDeg)
  const along = (top.yMm - endYMm) / u.y
  return [top, { xMm: top.xMm - u.x * along, yMm: endYMm }]
}

/** The elbow hangs below the line from shoulder to grip. */
function elbowOf(shoulder: Point, grip: Point, rider: Rider): Point | null {
  const other = intersectCircles(grip, rider.forearmToGripMm, shoulder, rider.upperArmMm, 'upper')
  if (other.outcome === 'unreachable') return null
  const mx = grip.xMm - shoulder.xMm
  const my = grip.yMm - shoulder.yMm
  const t = ((other.point.xMm - shoulder.xMm) * mx + (other.point.yMm - shoulder.yMm) * my) / (mx * mx + my * my)
  const foot = { xMm: shoulder.xMm + t * mx, yMm: shoulder.yMm + t * my }
  return { xMm: 2 * foot.xMm - other.point.xMm, yMm: 2 * foot.yMm - other.point.yMm }
}

function seatTop(bikeType: BikeType): number {
  const { scale, directionDeg } = bikeType.axes.seatHeight
  const frame = bikeType.axes.frameHeight
  const liftMm = frame ? Math.max(0, unitVector(frame.directionDeg).y * highestMm(frame.scale)) : 0
  return bikeType.seatOrigin.yMm + (unitVector(directionDeg).y * (middleMm(scale) + highestMm(scale))) / 2 + liftMm
}

const highestMm = (scale: Scale): number => Math.max(...positionsOf(scale).map((s) => s.mm))
const middleMm = (scale: Scale): number => {
  const positions = positionsOf(scale)
  return (positions[0].mm + positions[positions.length - 1].mm) / 2
}
