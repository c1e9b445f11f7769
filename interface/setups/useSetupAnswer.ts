import { useMemo } from 'react'
import type { Marks } from '@/core/base/conventions'
import type { RecommendRequest } from '@/core/setups/recommend/request/request'
import { useRecommendation } from '../compute/useRecommendation'
import { useUnitSystem } from '../kit/theme/DevicePreferences'
import { useMisSet } from './misSet/useMisSet'
import type { SetupViewProps } from './setupViewProps'
import { currentMarks, targetMarks, wasSet, type Row, type Step } from './steps/flow'

type SetupContext = Pick<
  SetupViewProps,
  | 'bike'
  | 'school'
  | 'limits'
  | 'history'
  | 'body'
  | 'elsewhere'
  | 'otherTypes'
  | 'costs'
  | 'prior'
  | 'observer'
  | 'entersKnownNumbers'
>

/**
 * What the rows of a set-up come to: the recommendation, what may be mis-set, and three sets of marks: `current` as
 * set on the bike, `shown` with the recommendation's where nothing is set, and the advised ones of this step.
 */
export function useSetupAnswer(context: SetupContext, rows: readonly Row[], step: Step) {
  const { bike, school, limits, history, body, elsewhere, otherTypes, costs, prior, observer, entersKnownNumbers } =
    context
  const { shown: lengths } = useUnitSystem()
  const request = useMemo<RecommendRequest>(
    () => ({
      bikeType: bike.type,
      bike: bike.machineCalibration,
      school,
      limits,
      // A current wish was carried into this set-up: it is not counted once more for each earlier one.
      history: history.map((h) => ({ ...h, evidence: h.evidence.filter(({ kind }) => kind !== 'wish') })),
      body,
      otherTypes,
      costs,
      prior,
      observer,
      evidence: rows.map((r) => r.row),
      lengths,
    }),
    [bike, school, limits, history, body, otherTypes, costs, prior, observer, rows, lengths],
  )
  const { answer, working, trouble } = useRecommendation(request)
  const set = wasSet(rows)
  const current = useMemo<Marks>(() => (set ? currentMarks(rows) : {}), [rows, set])
  const shown = useMemo<Marks>(
    () => ({ ...(answer && !entersKnownNumbers ? answer.marks : {}), ...current }),
    [answer, current, entersKnownNumbers],
  )
  const misSetInputs = useMemo(
    () => ({ bikeType: bike.type, bike: bike.machineCalibration, history, elsewhere, school, observer, prior }),
    [bike, history, elsewhere, school, observer, prior],
  )
  const misSet = useMisSet(misSetInputs, rows, current, working)
  const target = answer
    ? targetMarks(answer, step, { set, shown, base: set || entersKnownNumbers ? current : shown })
    : {}
  return { answer, working, trouble, misSet, set, current, shown, wanted: target, lengths }
}
