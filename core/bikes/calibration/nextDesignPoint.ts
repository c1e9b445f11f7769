import { axisPositions } from '../bike/contactPoints'
import { CholeskyDecomposition, Matrix } from 'ml-matrix'
import { axisOf, type BikeType } from '../bike/bike'
import { isCommon, type AxisName } from '../../base/adjustments'
import type { Marks } from '../../base/conventions'
import { positionsOf } from '../scale/scale'
import { designGrid, predictionSd, spread } from './predictionError'
import { addNormalEquation, fitTape, TAPE_SD_MM } from './fitTape'
import { initialParameters, lengthAt } from './parameters'
import { LENGTHS, measuredAxesOf, observationsOf, type TapeReading } from './readings'

/** Where the tape should go next, and the largest expected error after it (one standard deviation, mm). */
export type DesignPoint = Readonly<{ marks: Marks; leavesMm: number }>

/**
 * What it costs in the choice to leave an axis at the one mark it was read at so far, mm: nothing can be fitted until
 * it moved.
 */
const STILL_ONE_MARK_COST_MM = 40
/** Correlation from which two axes count as changed alike, and what that costs in the choice, mm. */
const HIGH_CORRELATION = 0.9
const CORRELATION_COST_MM = 2

/**
 * The setting with the most informative four lengths: of all combinations of lowest, middle and highest marks, the one
 * that leaves the smallest expected error over the range, summed over the lengths, and does not change two axes alike.
 * Settings far apart follow from that: a setting like one already read gains little.
 */
export function nextDesignPoint(bikeType: BikeType, readings: readonly TapeReading[]): DesignPoint {
  const observed = observationsOf(readings)
  const { parameters, information } = fitTape(
    bikeType,
    observed,
    observed.map(() => 1),
    initialParameters(bikeType),
  )
  const settings = designGrid(bikeType)
  const gains = candidates(bikeType).map((marks) => {
    const after = covarianceAfter(bikeType, parameters, information, marks)
    const errors = LENGTHS.map((length) =>
      Math.max(...settings.map((at) => predictionSd(bikeType, parameters, after, at, length))),
    )
    const alike = correlatedAxes(bikeType, [...readings.map((r) => r.marks), marks])
    return {
      marks,
      leavesMm: Math.max(...errors),
      cost:
        errors.reduce((a, b) => a + b, 0) +
        CORRELATION_COST_MM * alike +
        STILL_ONE_MARK_COST_MM * axesAtOneMark(bikeType, readings, marks),
    }
  })
  const best = gains.reduce((a, b) => (b.cost < a.cost - 1e-6 ? b : a))
  return { marks: best.marks, leavesMm: best.leavesMm }
}

/** Pairs of axes that were so far always changed alike (or just opposite): a mistake in one then hides in the other. */
function correlatedAxes(bikeType: BikeType, settings: readonly Marks[]): number {
  if (settings.length < 3) return 0
  const columns = measuredAxesOf(bikeType).map((name) =>
    settings.map((marks) => axisPositions(bikeType, marks)[name] ?? 0),
  )
  return columns.flatMap((a, i) => columns.slice(i + 1).filter((b) => Math.abs(correlation(a, b)) > HIGH_CORRELATION))
    .length
}

/** Axes with more than one mark that these readings and a further one would all have read at the same mark. */
function axesAtOneMark(bikeType: BikeType, readings: readonly TapeReading[], marks: Marks): number {
  if (readings.length === 0) return 0
  return measuredAxesOf(bikeType).filter(
    (name) =>
      positionsOf(axisOf(bikeType, name)!.scale).length > 1 &&
      readings.every((r) => r.marks[name] === undefined || r.marks[name] === marks[name]),
  ).length
}

function correlation(a: readonly number[], b: readonly number[]): number {
  const middle = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length
  const [ma, mb] = [middle(a), middle(b)]
  const sum = (of: (i: number) => number) => a.reduce((total, _, i) => total + of(i), 0)
  const spreads = Math.sqrt(sum((i) => (a[i] - ma) ** 2) * sum((i) => (b[i] - mb) ** 2))
  return spreads === 0 ? 0 : sum((i) => (a[i] - ma) * (b[i] - mb)) / spreads
}

/** The covariance once all four lengths were read at these marks. */
function covarianceAfter(bikeType: BikeType, p: Float64Array, informationBefore: Matrix, marks: Marks): Matrix {
  const information = informationBefore.clone()
  const positions = axisPositions(bikeType, marks)
  const nothing = Matrix.zeros(p.length, 1)
  for (const length of LENGTHS)
    addNormalEquation(information, nothing, lengthAt(bikeType, p, positions, length).by, 1 / TAPE_SD_MM ** 2, 0)
  return new CholeskyDecomposition(information).solve(Matrix.eye(p.length))
}

/** Combinations of the lowest, a middle and the highest mark of every axis; further adjustments go turn about. */
function candidates(bikeType: BikeType): Marks[] {
  const someOf = (name: AxisName): string[] => {
    const positions = positionsOf(axisOf(bikeType, name)!.scale)
    return [
      ...new Set([
        positions[0].label,
        positions[Math.floor(positions.length / 2)].label,
        positions[positions.length - 1].label,
      ]),
    ]
  }
  const axes = measuredAxesOf(bikeType)
  const common = axes
    .filter(isCommon)
    .reduce<Marks[]>(
      (settings, name) => settings.flatMap((setting) => someOf(name).map((label) => ({ ...setting, [name]: label }))),
      [{}],
    )
  return spread(
    common,
    axes.filter((axis) => !isCommon(axis)),
    someOf,
  )
}
