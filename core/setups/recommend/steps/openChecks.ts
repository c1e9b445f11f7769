import { inWindow } from '../../../base/school/school'
import { barLooksAt, isPassed } from '../bars/barLooks'
import { standingBars } from '../bars/bars'
import type { Check } from '../request/request'
import type { SaddleSearch } from '../saddle/saddleSearch'
import { saddleAxes, type StepInputs } from '../request/stepInputs'

/** Checks not yet made with saddle and bars as set. */
export function openChecks(situation: StepInputs): Check[] {
  const { readings, now, search, barSearch, current, evidence, at } = situation
  const looks = barLooksAt(evidence, at, now)
  const standing = standingBars(barSearch, saddleAxes(current), now)
  const isHeightRight = standing !== undefined && inWindow(standing.gripAboveSeatMm, barSearch.target.windowMm)
  return [
    ...(readings.knee ? [] : (['kneeFlexion'] as const)),
    ...(readings.heel ? [] : heelIfItDecides(search)),
    ...(readings.plumb ? [] : plumbIfUsed(search)),
    ...(isHeightRight || isPassed(looks) ? [] : (['barAgainstSaddle'] as const)),
    ...(looks.reach || looks.isGauged ? [] : (['reach'] as const)),
    // Knees are looked at once the reach is right.
    ...(looks.reach === 'good' && !looks.clearance ? (['clearance'] as const) : []),
  ]
}

/** The plumb line, where the studio's school hangs one. */
export const plumbIfUsed = ({ school }: SaddleSearch): readonly Check[] =>
  school.foreAft === 'unused' ? [] : ['plumb']

/** The heel check, where the studio's school goes by it. */
export const heelIfItDecides = ({ school }: SaddleSearch): readonly Check[] =>
  school.heelCheck === 'target' || school.heelCheck === 'ceiling' ? ['heel'] : []
