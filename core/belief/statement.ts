import type { Point } from '../conventions'
import { normalBelow } from './random'
import { trueSeat, type Sample } from './sample'
import { bottomFlexionDeg, heelGapMm, levelPlumbMm } from '../linkage/leg'
import type { Body } from '../rider/prior'
import type { School } from '../school/school'
import type { Evidence, EvidenceOf, Landmark } from '../evidence/evidence'
import { HEEL_JUST_STRAIGHT_MM, KNEE_BY_EYE_CUTS_DEG, PATELLA_MIDDLE_BEHIND_FRONT_MM, READING_SD } from '../evidence/readingSpreads'

/** Where things stood when a row was seen. `pitchMm` is the rounding step of the seat's marks. */
export type Seen = Readonly<{ seat: Point; axleHeightMm: number; pitchMm: number; soleMm: number; school: School }>

/**
 * What a row says of a rider: a number read with a normal spread, or a category between two cuts of a quantity
 * that is seen with a spread (ordered probit). Rows that say nothing of the body have none.
 */
export type Statement =
  | Readonly<{ form: 'reading'; read: number; sd: number; of: (sample: Sample) => number }>
  | Readonly<{ form: 'category'; from: number; to: number; sd: number; of: (sample: Sample) => number }>

/** Chance floor of a category, so that contradicting rows stay comparable. */
const SMALLEST_CHANCE = 1e-12

/** The statement a row makes, or null where it makes none (what was done, who the rider is, an unused heel check). */
export function statementOf(row: Evidence, seen: Seen): Statement | null {
  switch (row.kind) {
    case 'stature':
      return { form: 'reading', read: row.mm, sd: READING_SD.statureMm, of: ({ body }) => body.statureMm }
    case 'inseam':
      return { form: 'reading', read: row.mm - (row.shod ? seen.soleMm : 0), sd: READING_SD.inseamMm, of: ({ body }) => body.inseamMm }
    case 'landmarkHeight':
      return {
        form: 'reading',
        read: row.mm - (row.shod ? seen.soleMm : 0),
        sd: READING_SD.landmarkMm,
        of: ({ body }) => landmarkHeightMm(body, row.landmark),
      }
    case 'landmarkAtMark':
      return {
        form: 'reading',
        read: seen.axleHeightMm - seen.soleMm,
        sd: Math.hypot(READING_SD.landmarkMm, seen.pitchMm / Math.sqrt(12)),
        of: (sample) => landmarkHeightMm(sample.body, row.landmark) - trueSeat(sample, seen.seat).yMm,
      }
    case 'kneeAngle':
      return { form: 'reading', read: row.deg, sd: kneeSdDeg(row), of: (s) => bottomFlexionDeg(s.leg, trueSeat(s, seen.seat)) }
    case 'kneeByEye':
      return { ...kneeBetween(row), form: 'category', sd: READING_SD.kneeByEyeDeg, of: (s) => bottomFlexionDeg(s.leg, trueSeat(s, seen.seat)) }
    case 'heelCheck':
      if (seen.school.heelCheck === 'unused') return null
      return { ...heelBetween(row), form: 'category', sd: READING_SD.heelMm, of: (s) => heelGapMm(s.leg, trueSeat(s, seen.seat)) }
    case 'plumb':
      return {
        form: 'reading',
        read: row.mm + (row.from === 'middle' ? PATELLA_MIDDLE_BEHIND_FRONT_MM : 0),
        sd: READING_SD.plumbMm,
        of: (s) => levelPlumbMm(s.leg, trueSeat(s, seen.seat)),
      }
    case 'set':
    case 'rider':
      return null
  }
}

/** Natural logarithm of how likely a statement is for a sample, up to a constant of the statement. */
export function logLikelihood(statement: Statement, sample: Sample): number {
  const value = statement.of(sample)
  if (statement.form === 'reading') {
    const z = (statement.read - value) / statement.sd
    return -0.5 * z * z
  }
  const chance = normalBelow((statement.to - value) / statement.sd) - normalBelow((statement.from - value) / statement.sd)
  return Math.log(Math.max(SMALLEST_CHANCE, chance))
}

/** Height of a landmark above the floor, barefoot, mm; "between" lies half-way from trochanter to hip crest. */
export function landmarkHeightMm(body: Body, landmark: Landmark): number {
  if (landmark === 'hipCrest') return body.hipCrestHeightMm
  if (landmark === 'frontHipBone') return body.frontHipBoneHeightMm
  if (landmark === 'trochanter') return body.trochanterHeightMm
  return (body.trochanterHeightMm + body.hipCrestHeightMm) / 2
}

function kneeSdDeg({ by }: EvidenceOf<'kneeAngle'>): number {
  return { goniometer: READING_SD.goniometerDeg, photo: READING_SD.photoDeg, gauge: READING_SD.gaugeDeg }[by]
}

function kneeBetween({ seen }: EvidenceOf<'kneeByEye'>): { from: number; to: number } {
  const { locked, deepBend } = KNEE_BY_EYE_CUTS_DEG
  if (seen === 'locked') return { from: -Infinity, to: locked }
  return seen === 'deepBend' ? { from: deepBend, to: Infinity } : { from: locked, to: deepBend }
}

function heelBetween({ seen }: EvidenceOf<'heelCheck'>): { from: number; to: number } {
  if (seen === 'stillBent') return { from: -Infinity, to: -HEEL_JUST_STRAIGHT_MM }
  return seen === 'cannotReach'
    ? { from: HEEL_JUST_STRAIGHT_MM, to: Infinity }
    : { from: -HEEL_JUST_STRAIGHT_MM, to: HEEL_JUST_STRAIGHT_MM }
}
