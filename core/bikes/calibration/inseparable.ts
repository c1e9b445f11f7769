import type { AxisName } from '../../base/adjustments'
import type { BikeType } from '../bike/bike'
import { furtherAxesOf } from '../bike/standing'
import { CholeskyDecomposition, Matrix } from 'ml-matrix'
import { fitTape } from './fitTape'
import { factorIndex, initialParameters, priorWeights } from './parameters'
import { measuredAxesOf, type Observation } from './readings'

/** An axis whose spacing the readings leave at more than this share of the guess's own spread is not known by them. */
const STILL_GUESSED = 0.5
/** Two factors this strongly tied are seen only together. */
const TIED = 0.85

/**
 * Two adjustments that the readings cannot tell apart, one of them a further one: what lengthens the one could as well
 * lengthen the other. Frame and seat height are such where both were always moved alike, or where no length of the
 * bars was read. Null where all are known, and for types with the common four alone.
 */
export function inseparableAxes(
  bikeType: BikeType,
  observed: readonly Observation[],
): readonly [AxisName, AxisName] | null {
  if (furtherAxesOf(bikeType).length === 0) return null
  const axes = measuredAxesOf(bikeType)
  const weights = observed.map(() => 1)
  const { information } = fitTape(bikeType, observed, weights, initialParameters(bikeType))
  const covariance = new CholeskyDecomposition(information).solve(Matrix.eye(information.rows))
  const prior = priorWeights(bikeType)
  const at = (axis: AxisName) => factorIndex(axes, axis)
  const sd = (axis: AxisName) => Math.sqrt(covariance.get(at(axis), at(axis)))
  const isGuessed = (axis: AxisName) => sd(axis) * Math.sqrt(prior[at(axis)]) > STILL_GUESSED
  for (const further of furtherAxesOf(bikeType).filter((axis) => axes.includes(axis)))
    for (const other of axes) {
      const tie = covariance.get(at(further), at(other)) / (sd(further) * sd(other))
      if (other !== further && Math.abs(tie) > TIED && (isGuessed(further) || isGuessed(other))) return [other, further]
    }
  return null
}
