import { Type } from '@sinclair/typebox'
import { columnOf } from '../../../../base/columns'
import { orderedProbit, type Interval } from '../../../inference/likelihood'
import { BUILD_CUT_SHARE as CUT, MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { FRACTION_OF_STATURE as F } from '../../../rider/anthropometry'
import { oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

const SHARE: Readonly<Record<'long' | 'even' | 'short', Interval>> = {
  long: { from: CUT, to: Infinity },
  even: { from: -CUT, to: CUT },
  short: { from: -Infinity, to: -CUT },
}

/** How the rider is built: the torso against the legs, by a look; weight above and tight hips are reported or seen. */
export const build = defineKind({
  kind: 'build',
  fields: {
    torso: oneOf(['long', 'even', 'short']),
    heavyUpperBody: Type.Optional(Type.Boolean()),
    tightHips: Type.Optional(Type.Boolean()),
  },
  name: 'build',
  about: 'reported',
  step: 'talk',
  likelihood: ({ torso }) =>
    orderedProbit(SHARE[torso], MEASUREMENT_SD.buildShare, ({ body, count }) =>
      columnOf(count, (i) => (body.trunkMm[i] / F.trunk / body.trochanterHeightMm[i]) * F.trochanterHeight - 1),
    ),
})
