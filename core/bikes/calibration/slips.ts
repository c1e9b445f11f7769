import { axesOf, axisOf, type BikeType } from '../bike/bike'
import type { AxisName, Label } from '../../base/conventions'
import { findPosition, positionsOf } from '../scale/scale'
import { fitTape, inverseResidualWeights, TAPE_SD_MM, type TapeFit } from './fitTape'
import { initialParameters, priorWeights, farFromPrior } from './parameters'
import { LENGTHS, type Observation, type TapeReading } from './readings'

/** A way of measuring that is wrong in all readings alike, so that they go together and yet mislead. */
export type TapeSlip =
  /**
   * Reach taken from the nose; stack from the floor; saddle height from the pedal at its lowest; setback's sign
   * turned.
   */
  | Readonly<{ code: 'reachFromNose' | 'stackFromFloor' | 'heightFromPedal' | 'setbackSign' }>
  /** Every number written in centimetres, or inches. */
  | Readonly<{ code: 'centimetres' | 'inches' }>
  /** The axis' labels run the other way on the bike. */
  | Readonly<{ code: 'reversedLabels'; axis: AxisName }>

/** A slip must make the readings this much likelier to be named, as half a chi-square: beyond chance. Ours. */
const MIN_LOG_LIKELIHOOD_GAIN = 5
/** One number's miss counts at most this many of its spreads, so that a few blunders do not decide. */
const MAX_SDS = 5
/** More slips at a time are no longer an explanation. */
const MAX_SLIPS = 3

/**
 * The slips that together explain why readings do not go with the guess (a part strays far, or they do not go together
 * at all), or none. One at a time, the one that makes them likeliest; named only where nothing is left to explain.
 */
export function slipsThatExplain(bikeType: BikeType, observed: readonly Observation[]): TapeSlip[] {
  const slips: TapeSlip[] = []
  let read = thinned(observed)
  let fit = roughFit(bikeType, read)
  while (slips.length < MAX_SLIPS) {
    const tried = slipsOf(bikeType).map((slip) => {
      const without = withoutSlip(bikeType, read, slip)
      const better = roughFit(bikeType, without)
      return { slip, without, better, misfit: misfit(bikeType, better) }
    })
    const best = tried.reduce((a, b) => (b.misfit < a.misfit ? b : a))
    if (best.misfit > misfit(bikeType, fit) - MIN_LOG_LIKELIHOOD_GAIN) break
    slips.push(best.slip)
    read = best.without
    fit = best.better
  }
  return farFromPrior(bikeType, fit.parameters).length === 0 ? slips : []
}

/** The numbers as they would have been without the slip. */
function withoutSlip(bikeType: BikeType, observed: readonly Observation[], slip: TapeSlip): Observation[] {
  if (slip.code === 'reversedLabels') {
    const turned = (label: Label | undefined) =>
      label === undefined ? undefined : opposite(bikeType, slip.axis, label)
    return observed.map((o) => ({ ...o, marks: { ...o.marks, [slip.axis]: turned(o.marks[slip.axis]) } }))
  }
  return observed.map((o) => ({ ...o, mm: lengthWithoutSlip(bikeType, o.length, o.mm, slip) }))
}

/** One length as it would have been without the slip, mm. */
function lengthWithoutSlip(bikeType: BikeType, length: Observation['length'], mm: number, slip: TapeSlip): number {
  switch (slip.code) {
    case 'reachFromNose':
      return length === 'reachMm' ? mm + bikeType.saddle.noseAheadMm : mm
    case 'stackFromFloor':
      return length === 'stackMm' ? mm - bikeType.axleHeightMm : mm
    case 'heightFromPedal':
      return length === 'saddleHeightMm' ? mm - bikeType.crankMm : mm
    case 'setbackSign':
      return length === 'setbackMm' ? 0 - mm : mm
    case 'centimetres':
      return 10 * mm
    case 'inches':
      return 25.4 * mm
    case 'reversedLabels':
      return mm
  }
}

/** This many readings, evenly chosen among all, suffice for the test. */
const ENOUGH_READINGS = 12

function thinned(observed: readonly Observation[]): readonly Observation[] {
  const readings = 1 + Math.max(...observed.map((o) => o.reading))
  const every = Math.ceil(readings / ENOUGH_READINGS)
  return observed.filter((o) => o.reading % every === 0)
}

/** A reading as it would have been without the slip; a label that runs the other way is the type's matter, not its. */
export function readingWithoutSlip(bikeType: BikeType, { marks, lengths }: TapeReading, slip: TapeSlip): TapeReading {
  const right = LENGTHS.flatMap((length) => {
    const mm = lengths[length]
    return mm === undefined ? [] : [[length, lengthWithoutSlip(bikeType, length, mm, slip)]]
  })
  return { marks, lengths: Object.fromEntries(right) }
}

function slipsOf(bikeType: BikeType): TapeSlip[] {
  const plain = ['reachFromNose', 'stackFromFloor', 'heightFromPedal', 'setbackSign', 'centimetres', 'inches'] as const
  const reversed = axesOf(bikeType).filter((axis) => positionsOf(axisOf(bikeType, axis)!.scale).length > 1)
  return [...plain.map((code) => ({ code })), ...reversed.map((axis) => ({ code: 'reversedLabels' as const, axis }))]
}

/** The label as far from the other end of its scale as this one is from its own. */
function opposite(bikeType: BikeType, axis: AxisName, label: Label): Label {
  const positions = positionsOf(axisOf(bikeType, axis)!.scale)
  const found = findPosition(axisOf(bikeType, axis)!.scale, label)
  const index = found.outcome === 'found' ? positions.findIndex((position) => position.label === found.stop.label) : -1
  return index < 0 ? label : positions[positions.length - 1 - index].label
}

/** Enough to separate a slip from a property of the bike: a few rounds, each weight one over the residual. */
const ROUGH_ITERATIONS = 6

function roughFit(bikeType: BikeType, observed: readonly Observation[]): TapeFit {
  let fit = fitTape(
    bikeType,
    observed,
    observed.map(() => 1),
    initialParameters(bikeType),
    ROUGH_ITERATIONS,
  )
  for (let round = 0; round < ROUGH_ITERATIONS; round++)
    fit = fitTape(bikeType, observed, inverseResidualWeights(fit), fit.parameters, ROUGH_ITERATIONS)
  return fit
}

/** Half the chi-square of a fit: what the readings miss, and how far the guess had to give. */
function misfit(bikeType: BikeType, { parameters, residuals: residuals }: TapeFit): number {
  const guess = initialParameters(bikeType)
  const missed = residuals.reduce((sum, mm) => sum + Math.min(MAX_SDS, Math.abs(mm) / TAPE_SD_MM) ** 2, 0)
  const given = priorWeights(bikeType).reduce((sum, weight, i) => sum + weight * (parameters[i] - guess[i]) ** 2, 0)
  return (missed + given) / 2
}
