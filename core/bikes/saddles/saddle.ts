import { Type } from '@sinclair/typebox'
import { between, closed, oneOf, positiveMm, type Plain } from '../../base/schema'
import { SADDLE_SHAPES, TILT_ACROSS, type Bike, type BikeType } from '../bike/bike'

export const RELIEFS = ['none', 'channel', 'cutOut', 'split'] as const
export const PADDINGS = ['firm', 'medium', 'soft'] as const

/** A saddle as a thing: what a studio calls it, and what of it matters under a rider. Lengths mm. */
export const saddleModelSchema = closed({
  name: Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' }),
  /** Across its widest part. */
  widthMm: between(80, 320),
  lengthMm: positiveMm,
  /** The nose ahead of the middle of the widest part. */
  noseAheadMm: between(0, 400),
  shape: oneOf(SADDLE_SHAPES),
  relief: oneOf(RELIEFS),
  padding: oneOf(PADDINGS),
  /** How a board lies on it, by which its tilt is judged. */
  board: oneOf(TILT_ACROSS),
  /** Middle of its clamp behind the nose; left out where nobody measured it. */
  clampMm: Type.Optional(between(0, 400)),
  /** How far its padding gives under a rider. */
  giveMm: Type.Optional(between(0, 80)),
  /** How many the studio has; left out: enough for every machine. */
  pieces: Type.Optional(Type.Integer({ minimum: 1, maximum: 999 })),
})
export type SaddleModel = Plain<typeof saddleModelSchema>

/** What a machine that carries this saddle differs by from its type, as the machine keeps it. */
export const carriedSaddle = (model: SaddleModel, bikeType: BikeType): NonNullable<Bike['saddle']> => ({
  name: model.name,
  widthMm: model.widthMm,
  lengthMm: model.lengthMm,
  shape: model.shape,
  board: model.board,
  noseDeltaMm: Number((model.noseAheadMm - bikeType.saddle.noseAheadMm).toFixed(2)),
})

/** The saddle on a machine: the one it carries, else its type's. */
export function saddleOn(bikeType: BikeType, bike: Bike | undefined): BikeType['saddle'] {
  const { saddle } = bike ?? {}
  if (!saddle) return bikeType.saddle
  return {
    noseAheadMm: bikeType.saddle.noseAheadMm + saddle.noseDeltaMm,
    lengthMm: saddle.lengthMm,
    shape: saddle.shape,
  }
}

/** Wider by less than this is no other saddle to who sits on it, mm. Common practice, no source. */
export const WIDER_MM = 8

/** Machines with a saddle clearly wider than this one's, the least wider first; none where its width is unknown. */
export function widerSaddles<B extends Readonly<{ machineCalibration: Bike }>>(
  here: Bike | undefined,
  bikes: readonly B[],
): readonly Readonly<{ bike: B; name: string; widthMm: number }>[] {
  const own = here?.saddle?.widthMm
  if (own === undefined) return []
  return bikes
    .flatMap((bike) => {
      const { saddle } = bike.machineCalibration
      return saddle && saddle.widthMm >= own + WIDER_MM ? [{ bike, name: saddle.name, widthMm: saddle.widthMm }] : []
    })
    .toSorted((a, b) => a.widthMm - b.widthMm)
}
