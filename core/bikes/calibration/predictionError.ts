import type { Matrix } from 'ml-matrix'
import { axesOf, axisOf, type BikeType } from '../bike/bike'
import { contactPoints, type Lengths } from '../bike/contactPoints'
import { isCommon, type AxisName } from '../../base/adjustments'
import { positionsOf } from '../scale/scale'
import { lengthAt, type Parameters } from './parameters'
import { LENGTH_OF_AXIS, LENGTHS, measuredAxesOf, type LengthName } from './readings'

/** Standard deviation along each axis that a tape sees, mm. */
export type AxisSds = Readonly<Partial<Record<AxisName, number>>>
type Positions = Readonly<Partial<Record<AxisName, number>>>

/**
 * Settings at the ends and in the middle of every axis, all together: where the prediction is least precise. Further
 * adjustments are at their ends, turn about (`spread`): all combinations would be thousands.
 */
export function designGrid(bikeType: BikeType): Positions[] {
  const settings = commonGrid(bikeType)
  const further = measuredAxesOf(bikeType).filter((axis) => !isCommon(axis))
  return spread(settings, further, (axis) => {
    const positions = positionsOf(axisOf(bikeType, axis)!.scale)
    return [positions[0].mm, positions[positions.length - 1].mm]
  })
}

/**
 * Each setting twice, with every further adjustment at one of its values and then at another, so that no two of them
 * always go together.
 */
export function spread<T>(
  settings: readonly Readonly<Partial<Record<AxisName, T>>>[],
  further: readonly AxisName[],
  valuesOf: (axis: AxisName) => readonly T[],
): Readonly<Partial<Record<AxisName, T>>>[] {
  if (further.length === 0) return [...settings]
  return [0, 1].flatMap((replicate) =>
    settings.map((setting, i) => ({
      ...setting,
      ...Object.fromEntries(
        further.map((axis, k) => {
          const values = valuesOf(axis)
          return [axis, values[(Math.floor(i / (k + 1)) + k + replicate) % values.length]]
        }),
      ),
    })),
  )
}

function commonGrid(bikeType: BikeType): Positions[] {
  return measuredAxesOf(bikeType)
    .filter(isCommon)
    .reduce<Positions[]>(
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
export function axisSdMm(bikeType: BikeType, p: Parameters, covariance: Matrix): AxisSds {
  const settings = designGrid(bikeType)
  const typical = (length: LengthName) =>
    Math.sqrt(
      settings.reduce((sum, at) => sum + predictionSd(bikeType, p, covariance, at, length) ** 2, 0) / settings.length,
    )
  return Object.fromEntries(measuredAxesOf(bikeType).map((name) => [name, typical(LENGTH_OF_AXIS[name]!)]))
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
  // What no tape sees has the same marks at the same places.
  const unseen = axes.filter((name) => LENGTH_OF_AXIS[name] === null)
  const places = (type: BikeType, name: AxisName) => positionsOf(axisOf(type, name)!.scale).map(({ mm }) => mm)
  if (unseen.some((name) => places(a, name).some((mm, i) => Math.abs(mm - places(b, name)[i]) >= SAME_MM))) return false
  const [here, there] = [designGrid(a), designGrid(b)]
  return here.every((positions, i) => {
    const [one, other] = [contactPoints(a, undefined, positions).lengths, contactPoints(b, undefined, there[i]).lengths]
    return LENGTHS.every((length) => Math.abs(one[length] - other[length]) < SAME_MM)
  })
}
