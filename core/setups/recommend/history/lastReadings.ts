import { LEG_AXES } from '../../../base/adjustments'
import { agreeOn, type Marks } from '../../../base/conventions'
import type { Evidence, EvidenceOf } from '../../../riders/evidence/registry'
import { plumbFromFrontMm } from '../../../riders/evidence/kinds/onBike/plumb'
import { MOVING_MORE_DEG } from '../../../base/measurementNoise'
import { inWindow, PLUMB_WINDOW_MM, type School } from '../../../base/school/school'

type KneeRow = EvidenceOf<'kneeAngle'> | EvidenceOf<'kneeByEye'>
type PlumbRow = EvidenceOf<'plumb'> | EvidenceOf<'plumbByEye'>

/** The latest readings at the saddle's current marks, and whether they lie in their windows. */
export type LastReadings = Readonly<{
  knee?: KneeRow
  heel?: EvidenceOf<'heelCheck'>
  plumb?: PlumbRow
  kneeInRange: boolean
  plumbInRange: boolean
  plumbEverTaken: boolean
  /** What was read of the knee here contradicts itself: it is read again before anything is changed. */
  kneeContradicts: boolean
}>

/** Whether a row measures the knee's bend with the ball of the foot on the pedal, as the window is defined. */
const isKnee = (row: Evidence): row is KneeRow =>
  row.kind === 'kneeByEye' || (row.kind === 'kneeAngle' && row.foot !== 'heel')

/** A knee read from a turning leg, converted to a still one. */
export const staticFlexionDeg = ({ deg, moving }: EvidenceOf<'kneeAngle'>): number =>
  deg - (moving ? MOVING_MORE_DEG : 0)

const isPlumb = (row: Evidence): row is PlumbRow => row.kind === 'plumb' || row.kind === 'plumbByEye'

/**
 * `at[i]` are the positions of the axes at row i, `now` the current ones; `contradicting[i]` whether its repeats
 * contradict each other.
 */
export function lastReadings(
  evidence: readonly Evidence[],
  at: readonly Marks[],
  now: Marks,
  school: School,
  contradicting: readonly boolean[] = [],
): LastReadings {
  const isHere = (i: number) => agreeOn(LEG_AXES, at[i], now)
  const here = evidence.filter((_, i) => isHere(i))
  const knee = here.findLast(isKnee)
  const heel = here.findLast((row): row is EvidenceOf<'heelCheck'> => row.kind === 'heelCheck')
  const plumb = here.findLast(isPlumb)
  const kneeContradicts = evidence.some((row, i) => contradicting[i] && isHere(i) && isKnee(row))
  const angleInRange = knee !== undefined && !kneeContradicts && kneeReadingsInRange(here, knee.kind, school)
  const kneeInRange = {
    target: heel?.seen === 'justStraight',
    ceiling: angleInRange && heel !== undefined && heel.seen !== 'cannotReach',
    evidence: angleInRange,
    unused: angleInRange,
  }[school.heelCheck]
  return {
    knee,
    heel,
    plumb,
    kneeInRange,
    plumbInRange: plumb !== undefined && plumbReadingInRange(plumb, school),
    kneeContradicts,
    plumbEverTaken: school.foreAft === 'unused' || evidence.some(isPlumb),
  }
}

const SEEN_IN_RANGE: Readonly<Record<School['foreAft'], readonly EvidenceOf<'plumbByEye'>['seen'][]>> = {
  plumb: ['overAxle'],
  midFoot: ['midFoot'],
  balance: ['midFoot', 'overAxle'],
  unused: ['behindAnkle', 'midFoot', 'overAxle', 'aheadOfAxle', 'pastToes'],
}

const plumbReadingInRange = (row: PlumbRow, school: School): boolean =>
  row.kind === 'plumb'
    ? inWindow(plumbFromFrontMm(row, school), PLUMB_WINDOW_MM[school.foreAft])
    : SEEN_IN_RANGE[school.foreAft].includes(row.seen)

/**
 * Whether what was read here, all of it, lies in the window: the middle reading of each side, or what most looks saw.
 */
function kneeReadingsInRange(here: readonly Evidence[], kind: KneeRow['kind'], school: School): boolean {
  const rows = here.filter((row): row is KneeRow => isKnee(row) && row.kind === kind)
  return [...new Set(rows.map((row) => row.side))].every((side) => {
    const ofSide = rows.filter((row) => row.side === side)
    const angles = ofSide
      .flatMap((row) => (row.kind === 'kneeAngle' ? [staticFlexionDeg(row)] : []))
      .sort((a, b) => a - b)
    if (angles.length > 0)
      return inWindow(
        (angles[Math.floor((angles.length - 1) / 2)] + angles[Math.ceil((angles.length - 1) / 2)]) / 2,
        school.kneeWindowDeg,
      )
    const good = ofSide.filter((row) => row.kind === 'kneeByEye' && row.seen === 'slightBend').length
    const last = ofSide.at(-1)
    return (
      2 * good > ofSide.length ||
      (2 * good === ofSide.length && last?.kind === 'kneeByEye' && last.seen === 'slightBend')
    )
  })
}
