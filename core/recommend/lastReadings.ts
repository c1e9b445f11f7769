import type { Marks } from '../conventions'
import type { Evidence, EvidenceOf } from '../evidence/registry'
import { plumbFromFrontMm } from '../evidence/kinds/plumb'
import { inWindow, PLUMB_WINDOW_MM, type School } from '../school/school'

type KneeRow = EvidenceOf<'kneeAngle'> | EvidenceOf<'kneeByEye'>

/** The latest readings that were taken with the saddle where it stands now, and whether they lie in their windows. */
export type LastReadings = Readonly<{
  knee?: KneeRow
  heel?: EvidenceOf<'heelCheck'>
  plumb?: EvidenceOf<'plumb'>
  kneeInRange: boolean
  plumbInRange: boolean
  plumbEverTaken: boolean
  /** What was read of the knee here contradicts itself: it is read again before anything is changed. */
  kneeContradicts: boolean
}>

/**
 * `at[i]` is where the axes stood at row i, `now` where they stand; `contradicting[i]` whether its repeats contradict
 * each other.
 */
export function lastReadings(
  evidence: readonly Evidence[],
  at: readonly Marks[],
  now: Marks,
  school: School,
  contradicting: readonly boolean[] = [],
): LastReadings {
  const isHere = (i: number) => at[i].seatHeight === now.seatHeight && at[i].seatSlide === now.seatSlide
  const here = evidence.filter((_, i) => isHere(i))
  const knee = here.findLast((row): row is KneeRow => row.kind === 'kneeAngle' || row.kind === 'kneeByEye')
  const heel = here.findLast((row): row is EvidenceOf<'heelCheck'> => row.kind === 'heelCheck')
  const plumb = here.findLast((row): row is EvidenceOf<'plumb'> => row.kind === 'plumb')
  const kneeContradicts = evidence.some(
    (row, i) => contradicting[i] && isHere(i) && (row.kind === 'kneeAngle' || row.kind === 'kneeByEye'),
  )
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
    plumbInRange: plumb !== undefined && inWindow(plumbFromFrontMm(plumb), PLUMB_WINDOW_MM[school.foreAft]),
    kneeContradicts,
    plumbEverTaken: evidence.some((row) => row.kind === 'plumb'),
  }
}

/**
 * Whether what was read here, all of it, lies in the window: the middle reading of each side, or what most looks saw.
 */
function kneeReadingsInRange(here: readonly Evidence[], kind: KneeRow['kind'], school: School): boolean {
  const rows = here.filter((row): row is KneeRow => row.kind === kind)
  return [...new Set(rows.map((row) => row.side))].every((side) => {
    const ofSide = rows.filter((row) => row.side === side)
    const angles = ofSide.flatMap((row) => (row.kind === 'kneeAngle' ? [row.deg] : [])).sort((a, b) => a - b)
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
