import { bottomCrankDeg, type Bike } from '../../bikes/bike/bike'
import { crankMmAt } from '../../bikes/bike/standing'
import { axisPositions, contactPoints } from '../../bikes/bike/contactPoints'
import type { Point } from '../../base/conventions'
import { offsetPoint, unitVector } from '../../base/geometry'
import { bottomFlexionDeg, kneeOverPedalMm, prepareLeg } from '../../riders/kinematics/leg'
import { DEFAULT_SOLE_MM } from '../../riders/rider/anthropometry'
import type { Change } from '../register/entry'
import type { SetNumbers } from './onMachine'
import { meanBody, statureBending, translateMarks, type Translation } from './translate'

/**
 * Numbers once something has changed, as marks that leave knee and plumb line as they were. `mm` is of shoes: the new
 * sole less the old; cleats: moved toward the heel; saddle: the new one's top above the old one's; gelCover: how thick
 * it is sat on; postSlipped: how much lower the seat truly was when the numbers were checked.
 */
export function afterChange(numbers: SetNumbers, what: Change, mm: number): Translation {
  const { bikeType, bike } = numbers
  switch (what) {
    case 'shoes':
    case 'cleats':
      return translateMarks({ from: numbers, to: { bikeType, bike }, shift: seatShift(numbers, what, mm) })
    case 'saddle':
    case 'gelCover':
      return translateMarks({ from: numbers, to: { bikeType, bike: seatHigher(numbers, mm) } })
    case 'postSlipped':
      return translateMarks({ from: { ...numbers, bike: seatHigher(numbers, -mm) }, to: { bikeType, bike } })
  }
}

/** The machine with its seat raised vertically by this many mm at every mark. */
function seatHigher({ bikeType, bike }: SetNumbers, mm: number): Bike {
  const along = mm / unitVector(bikeType.axes.seatHeight.directionDeg).y
  return { ...bike, offsetsMm: { ...bike?.offsetsMm, seatHeight: (bike?.offsetsMm?.seatHeight ?? 0) + along } }
}

/** Middle of the usual knee window, degrees. */
const USUAL_KNEE_DEG = 30
const ROUNDS = 12

/**
 * How the saddle has to move for knee and plumb line to stay with another sole or cleat, mm: of the mean body of the
 * size whose knee bends by the middle of the window there. Newton's method on the two of them.
 */
function seatShift({ bikeType, bike, marks }: SetNumbers, what: 'shoes' | 'cleats', mm: number): Point {
  const { seat } = contactPoints(bikeType, bike, axisPositions(bikeType, marks))
  const bottomDeg = bottomCrankDeg(bikeType)
  const crank = { crankMm: crankMmAt(bikeType, marks), pedalSurfaceMm: bikeType.pedalSurfaceMm }
  const legOf = (statureMm: number, changed: boolean) => {
    const body = meanBody(statureMm)
    const ankleToBallMm = body.ankleToBallMm - (changed && what === 'cleats' ? mm : 0)
    const soleMm = DEFAULT_SOLE_MM + (changed && what === 'shoes' ? mm : 0)
    return prepareLeg({ ...body, ankleToBallMm }, soleMm, crank, bottomDeg)
  }
  const statureMm = statureBending(USUAL_KNEE_DEG, (size) => bottomFlexionDeg(legOf(size, false), seat))
  const [was, is] = [legOf(statureMm, false), legOf(statureMm, true)]
  const target = [bottomFlexionDeg(was, seat), kneeOverPedalMm(was, seat)] as const
  let shift: Point = { xMm: 0, yMm: 0 }
  const off = (by: Point) => {
    const at = offsetPoint(seat, by.xMm, by.yMm)
    return [bottomFlexionDeg(is, at) - target[0], kneeOverPedalMm(is, at) - target[1]] as const
  }
  for (let round = 0; round < ROUNDS; round++) {
    const [deg, plumb] = off(shift)
    const [degX, plumbX] = off(offsetPoint(shift, STEP_MM, 0))
    const [degY, plumbY] = off(offsetPoint(shift, 0, STEP_MM))
    const [a, b, c, d] = [degX - deg, degY - deg, plumbX - plumb, plumbY - plumb].map((by) => by / STEP_MM)
    const determinant = a * d - b * c
    if (Math.abs(determinant) < 1e-9) break
    shift = offsetPoint(shift, -(deg * d - b * plumb) / determinant, -(a * plumb - c * deg) / determinant)
  }
  return shift
}
const STEP_MM = 0.1
