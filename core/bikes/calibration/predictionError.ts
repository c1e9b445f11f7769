import type { Matrix } from 'ml-matrix'
import { axesOf, axisOf, type BikeType } from '../bike/bike'
import { contactPoints, type Lengths } from '../bike/contactPoints'
import type { AxisName } from '../../base/conventions'
import { positionsOf } from '../scale/scale'
import { lengthAt, type Parameters } from './parameters'
import { LENGTH_OF_AXIS, LENGTHS, type LengthName } from './readings'

type Positions = Readonly<Partial<Record<AxisName, number>>>

/** Settings at the ends and in the middle of every axis, all together: where the prediction is least precise. */
export function designGrid(bikeType: BikeType): Positions[] {
  return axesOf(bikeType).reduce<Positions[]>(
    (settings, name) => {
      const positions = positionsOf(axisOf(bikeType, name)!.scale)
      const some = [
        ...new Set([positions[0], positions[Math.floor(positions.length / 2)], positions[positions.length - 1]]),
      ]
      return settings.flatMap((setting) => some.map(({ mm }) => ({ ...setting, [name]: mm })))
    },
    [{}],
  )
}

/** Standard deviation of a predicted length at a setting, mm. */
export function predictionSd(
  bikeType: BikeType,
  p: Parameters,
  covariance: Matrix,
  positions: Positions,
  length: LengthName,
): number {
  const { by } = lengthAt(bikeType, p, positions, length)
  let variance = 0
  for (let i = 0; i < by.length; i++)
    if (by[i] !== 0)
      for (let j = 0; j < by.length; j++) if (by[j] !== 0) variance += by[i] * covariance.get(i, j) * by[j]
  return Math.sqrt(Math.max(0, variance))
}

/** Largest standard deviation of each predicted length over the whole range, mm. */
export function maxPredictionSds(bikeType: BikeType, p: Parameters, covariance: Matrix): Lengths {
  const settings = designGrid(bikeType)
  const worst = (length: LengthName) =>
    Math.max(...settings.map((at) => predictionSd(bikeType, p, covariance, at, length)))
  return Object.fromEntries(LENGTHS.map((length) => [length, worst(length)])) as Lengths
}

/** Expected error along each axis of the type (of the length that follows it), root mean square over the range, mm. */
export function axisSdMm(bikeType: BikeType, p: Parameters, covariance: Matrix): Record<AxisName, number> {
  const settings = designGrid(bikeType)
  const typical = (length: LengthName) =>
    Math.sqrt(
      settings.reduce((sum, at) => sum + predictionSd(bikeType, p, covariance, at, length) ** 2, 0) / settings.length,
    )
  return Object.fromEntries(axesOf(bikeType).map((name) => [name, typical(LENGTH_OF_AXIS[name])])) as Record<
    AxisName,
    number
  >
}

/** Within this of each other two places are the same to a tape, mm. */
const SAME_MM = 0.1

/** Whether two types have the same marks at the same places: measurements of the one then apply to the other. */
export function sameGeometry(a: BikeType, b: BikeType): boolean {
  if (a === b || JSON.stringify(a) === JSON.stringify(b)) return true
  const [axes, others] = [axesOf(a), axesOf(b)]
  if (axes.join() !== others.join()) return false
  const labels = (type: BikeType, name: AxisName) =>
    positionsOf(axisOf(type, name)!.scale)
      .map((position) => position.label)
      .join('\n')
  if (axes.some((name) => labels(a, name) !== labels(b, name))) return false
  const [here, there] = [designGrid(a), designGrid(b)]
  return here.every((positions, i) => {
    const [one, other] = [contactPoints(a, undefined, positions).lengths, contactPoints(b, undefined, there[i]).lengths]
    return LENGTHS.every((length) => Math.abs(one[length] - other[length]) < SAME_MM)
  })
}
