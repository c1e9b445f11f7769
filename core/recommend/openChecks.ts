import type { Label } from '../conventions'
import type { ScalePosition } from '../scale/scale'
import type { Check } from './request'
import type { SaddleSearch } from './saddleSearch'
import { barsLookedAt, type StepInputs } from './stepInputs'

/** Checks not yet made with saddle and bars where they stand. */
export function openChecks(situation: StepInputs): Check[] {
  const { readings, now, bars, search } = situation
  const sameBars = (label: Label | undefined, wanted: ScalePosition | undefined) =>
    label !== undefined && label === wanted?.label
  return [
    ...(readings.knee ? [] : (['kneeFlexion'] as const)),
    ...(readings.heel ? [] : heelIfItDecides(search)),
    ...(readings.plumb ? [] : plumbIfUsed(search)),
    ...(sameBars(now.barHeight, bars.height) ? [] : (['barAgainstSaddle'] as const)),
    ...(barsLookedAt(situation) ? [] : (['reach'] as const)),
  ]
}

/** The plumb line, where the studio's school hangs one. */
export const plumbIfUsed = ({ school }: SaddleSearch): readonly Check[] =>
  school.foreAft === 'unused' ? [] : ['plumb']

/** The heel check, where the studio's school goes by it. */
export const heelIfItDecides = ({ school }: SaddleSearch): readonly Check[] =>
  school.heelCheck === 'target' || school.heelCheck === 'ceiling' ? ['heel'] : []
