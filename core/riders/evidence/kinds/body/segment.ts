import { columnOf } from '../../../../base/columns'
import { gaussian, type Quantity } from '../../../inference/likelihood'
import { MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { FRACTION_OF_STATURE as F } from '../../../rider/anthropometry'
import { between, oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

/** Arm: shoulder to the middle of the fist; foot: its whole length, bare. */
const LENGTH_MM: Readonly<Record<'thigh' | 'shank' | 'trunk' | 'arm' | 'foot', Quantity>> = {
  thigh: ({ body }) => body.thighMm,
  shank: ({ body }) => body.shankMm,
  trunk: ({ body }) => body.trunkMm,
  arm: ({ body, count }) => columnOf(count, (i) => body.upperArmMm[i] + body.forearmToGripMm[i]),
  foot: ({ body, count }) => columnOf(count, (i) => body.ankleToBallMm[i] * (F.footLength / F.ankleToBall)),
}

/** One limb by tape, joint to joint. */
export const segment = defineKind({
  kind: 'segment',
  fields: { segment: oneOf(['thigh', 'shank', 'trunk', 'arm', 'foot']), mm: between(100, 1200) },
  name: 'limb length',
  about: 'body',
  step: 'beside',
  likelihood: (row) => gaussian(row.mm, MEASUREMENT_SD.segmentMm, LENGTH_MM[row.segment]),
})
