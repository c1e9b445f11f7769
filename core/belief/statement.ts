import { columnOf } from '../columns'
import type { Point } from '../conventions'
import { normalBelow } from './random'
import type { Samples } from './sample'
import { bottomFlexionDeg, eachLeg, heelGapMm, levelPlumbMm } from '../linkage/leg'
import type { Bodies } from '../rider/prior'
import type { School } from '../school/school'
import type { Evidence, EvidenceOf, Landmark } from '../evidence/evidence'
import {
  HEEL_JUST_STRAIGHT_MM,
  KNEE_BY_EYE_CUTS_DEG,
  PATELLA_MIDDLE_BEHIND_FRONT_MM,
  READING_SD,
} from '../evidence/readingSpreads'

/** Where things stood when a row was seen. `pitchMm` is the rounding step of the seat's marks, `soleMm` the sole worn then. */
export type Seen = Readonly<{ seat: Point; axleHeightMm: number; pitchMm: number; soleMm: number; school: School }>

/** What was read or looked at, for every sample. */
type Quantity = (samples: Samples) => Float64Array

/** A range of a quantity; either end may be infinite. */
type Cut = Readonly<{ from: number; to: number }>

/**
 * What a row says of a rider: a number read with a normal spread, or a category between two cuts of a quantity
 * that is seen with a spread (ordered probit). Rows that say nothing of the body have none.
 */
export type Statement =
  | Readonly<{ form: 'reading'; read: number; sd: number; of: Quantity }>
  | Readonly<{ form: 'category'; from: number; to: number; sd: number; of: Quantity }>
  /** Several looks at one position: each falls between its cuts, with a spread of its own beside one they share. */
  | Readonly<{ form: 'looks'; cuts: readonly Cut[]; ownSd: number; sharedSd: number; of: Quantity }>

/** The statement of one row. */
export type SingleStatement = Exclude<Statement, { form: 'looks' }>

/** Chance floor of a category, so that contradicting rows stay comparable. */
const SMALLEST_CHANCE = 1e-12

/** The statement a row makes, or null where it makes none (what was done, who the rider is, an unused heel check). */
export function statementOf(row: Evidence, seen: Seen): SingleStatement | null {
  const { seat } = seen
  const legs = (samples: Samples) => samples.legsIn(seen.soleMm)
  const side = row.side === 'left' ? 1 : row.side === 'right' ? -1 : 0
  const flexion: Quantity = (samples) =>
    eachLeg(legs(samples), seat, (all, at, i) => bottomFlexionDeg(all, at, i) + side * samples.sideDeg[i])
  switch (row.kind) {
    case 'stature':
      return { form: 'reading', read: row.mm, sd: READING_SD.statureMm, of: ({ body }) => body.statureMm }
    case 'inseam':
      return {
        form: 'reading',
        read: row.mm - (row.shod ? seen.soleMm : 0),
        sd: READING_SD.inseamMm,
        of: ({ body }) => body.inseamMm,
      }
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
        of: ({ count, body, shift }) => {
          const heightMm = landmarkHeightMm(body, row.landmark)
          return columnOf(count, (i) => heightMm[i] - seat.yMm - shift.yMm[i])
        },
      }
    case 'kneeAngle':
      return { form: 'reading', read: row.deg, sd: kneeSdDeg(row), of: flexion }
    case 'kneeByEye':
      return { ...kneeBetween(row), form: 'category', sd: READING_SD.kneeByEyeDeg, of: flexion }
    case 'heelCheck':
      if (seen.school.heelCheck === 'unused') return null
      return {
        ...heelBetween(row),
        form: 'category',
        sd: READING_SD.heelMm,
        of: (s) => eachLeg(legs(s), seat, heelGapMm),
      }
    case 'plumb':
      return {
        form: 'reading',
        read: row.mm + (row.from === 'middle' ? PATELLA_MIDDLE_BEHIND_FRONT_MM : 0),
        sd: READING_SD.plumbMm,
        of: (s) => eachLeg(legs(s), seat, levelPlumbMm),
      }
    case 'set':
    case 'rider':
      return null
  }
}

/** Natural logarithm of how likely a statement is for each sample, up to a constant of the statement. */
export function logLikelihoods(statement: Statement, samples: Samples): Float64Array {
  const values = statement.of(samples)
  if (statement.form === 'reading') {
    const { read, sd } = statement
    return values.map((value) => -0.5 * ((read - value) / sd) ** 2)
  }
  if (statement.form === 'category') return values.map((value) => logOf(chanceBetween(statement, value, statement.sd)))
  const { cuts, ownSd, sharedSd } = statement
  return values.map((value) => {
    let sum = 0
    for (const [score, weight] of NORMAL_NODES) {
      let product = weight
      for (const cut of cuts) product *= chanceBetween(cut, value + sharedSd * score, ownSd)
      sum += product
    }
    return logOf(sum)
  })
}

const logOf = (chance: number): number => Math.log(Math.max(SMALLEST_CHANCE, chance))

function chanceBetween({ from, to }: Cut, value: number, sd: number): number {
  const below = to === Infinity ? 1 : normalBelow((to - value) / sd)
  return from === -Infinity ? below : below - normalBelow((from - value) / sd)
}

/** Nodes and weights of a standard normal (Gauss–Hermite, five points; Abramowitz & Stegun, table 25.10, from memory). */
const NORMAL_NODES: readonly (readonly [score: number, weight: number])[] = [
  [-2.85697, 0.0112574],
  [-1.355626, 0.2220759],
  [0, 0.5333333],
  [1.355626, 0.2220759],
  [2.85697, 0.0112574],
]

/** Height of a landmark above the floor, barefoot, mm; "between" lies half-way from trochanter to hip crest. */
export function landmarkHeightMm(body: Bodies, landmark: Landmark): Float64Array {
  if (landmark === 'hipCrest') return body.hipCrestHeightMm
  if (landmark === 'frontHipBone') return body.frontHipBoneHeightMm
  if (landmark === 'trochanter') return body.trochanterHeightMm
  return columnOf(body.count, (i) => (body.trochanterHeightMm[i] + body.hipCrestHeightMm[i]) / 2)
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
