import type { Marks } from '../conventions'
import { type Evidence, type EvidenceOf } from '../evidence/evidence'
import { PATELLA_MIDDLE_BEHIND_FRONT_MM } from '../evidence/readingSpreads'
import { inWindow, PLUMB_WINDOW_MM, type School } from '../school/school'

type KneeRow = EvidenceOf<'kneeAngle'> | EvidenceOf<'kneeByEye'>

/** The latest readings that were taken with the saddle where it stands now, and whether they lie in their windows. */
export type LastReadings = Readonly<{
  knee?: KneeRow
  heel?: EvidenceOf<'heelCheck'>
  plumb?: EvidenceOf<'plumb'>
  kneeHolds: boolean
  plumbHolds: boolean
  plumbEverTaken: boolean
}>

/** Plumb offset of the knee's front, mm, whichever part the string hung from. */
export const plumbFromFrontMm = (row: EvidenceOf<'plumb'>): number => row.mm + (row.from === 'middle' ? PATELLA_MIDDLE_BEHIND_FRONT_MM : 0)

/** `at[i]` is where the axes stood at row i; `now` where they stand. */
export function lastReadings(evidence: readonly Evidence[], at: readonly Marks[], now: Marks, school: School): LastReadings {
  const here = evidence.filter((_, i) => at[i].seatHeight === now.seatHeight && at[i].seatSlide === now.seatSlide)
  const knee = here.findLast((row): row is KneeRow => row.kind === 'kneeAngle' || row.kind === 'kneeByEye')
  const heel = here.findLast((row): row is EvidenceOf<'heelCheck'> => row.kind === 'heelCheck')
  const plumb = here.findLast((row): row is EvidenceOf<'plumb'> => row.kind === 'plumb')
  const angleHolds = knee?.kind === 'kneeAngle' ? inWindow(knee.deg, school.kneeWindowDeg) : knee?.seen === 'slightBend'
  const kneeHolds = {
    target: heel?.seen === 'justStraight',
    ceiling: angleHolds && heel !== undefined && heel.seen !== 'cannotReach',
    evidence: angleHolds,
    unused: angleHolds,
  }[school.heelCheck]
  return {
    knee,
    heel,
    plumb,
    kneeHolds,
    plumbHolds: plumb !== undefined && inWindow(plumbFromFrontMm(plumb), PLUMB_WINDOW_MM[school.foreAft]),
    plumbEverTaken: evidence.some((row) => row.kind === 'plumb'),
  }
}
