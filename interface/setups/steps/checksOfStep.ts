import { isBarCheck } from '@/core/riders/evidence/evidence'
import type { CheckName } from '@/core/messages/setups/checks'
import type { Question } from '@/core/setups/recommend/request/questionCosts'
import type { School } from '@/core/base/school/school'
import type { BikeType } from '@/core/bikes/bike/bike'
import type { Row, Step } from './flow'

/** The cards of a step, the first is where it begins; what the school or the bike makes no use of is left out. */
export function checksOfStep(
  step: Step,
  {
    school,
    bikeType,
    returning,
    gauge,
  }: Readonly<{
    school: School
    bikeType: BikeType
    returning: boolean
    /** An angle gauge is connected. */
    gauge: boolean
  }>,
): readonly CheckName[] {
  switch (step) {
    case 'talk':
      return returning ? ['recheck', 'rider', 'build', 'school'] : ['rider', 'build', 'school']
    case 'beside':
      return ['landmark', 'tape', 'limbs']
    case 'knee':
      return ['kneeByEye', 'kneeAngle', ...(gauge ? (['gauge'] as const) : []), 'rocking', 'footPitch']
    case 'cranks':
      return school.foreAft === 'unused' ? ['plumbByEye'] : ['plumb', 'plumbByEye']
    case 'bars': {
      const forearm: readonly CheckName[] = bikeType.forearmGaugeValid ? ['forearmGauge'] : []
      return ['wish', 'elbows', 'reachFeel', 'clearance', 'trunkAngle', ...forearm]
    }
    case 'numbers':
      return []
  }
}

/** The card a step opens at: the one whose kind was answered last, or its first. */
export function openingCheck(checks: readonly CheckName[], rows: readonly Row[]): CheckName | undefined {
  if (checks.includes('recheck') && !rows.some(({ row }) => row.kind === 'set')) return 'recheck'
  const answered = rows.findLast(({ row }) => checks.includes(row.kind as CheckName) && !isBarCheck(row))
  if (answered) return answered.row.kind as CheckName
  if (checks.includes('tape') && rows.some(({ row }) => row.kind === 'inseam' || row.kind === 'stature')) return 'tape'
  return checks[0]
}

/** The step and card that answer a question. */
export const QUESTION_CARD: Readonly<Record<Question, Readonly<{ step: Step; check: CheckName }>>> = {
  hipCrestAtMark: { step: 'beside', check: 'landmark' },
  frontHipBoneAtMark: { step: 'beside', check: 'landmark' },
  stature: { step: 'beside', check: 'tape' },
  inseam: { step: 'beside', check: 'tape' },
  trochanterHeight: { step: 'beside', check: 'limbs' },
  thigh: { step: 'beside', check: 'limbs' },
  shank: { step: 'beside', check: 'limbs' },
  footPitch: { step: 'knee', check: 'footPitch' },
  goniometer: { step: 'knee', check: 'kneeAngle' },
  plumb: { step: 'cranks', check: 'plumb' },
  kneeByEye: { step: 'knee', check: 'kneeByEye' },
  heelCheck: { step: 'knee', check: 'kneeByEye' },
  rocking: { step: 'knee', check: 'rocking' },
  plumbByEye: { step: 'cranks', check: 'plumbByEye' },
}
