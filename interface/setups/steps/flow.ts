import { axesOf, type BikeType } from '@/core/bikes/bike/bike'
import type { AxisName, Marks } from '@/core/base/conventions'
import { isSaddleCheck } from '@/core/riders/evidence/evidence'
import { KINDS, type Evidence, type EvidenceKind } from '@/core/riders/evidence/registry'
import type { Recommendation } from '@/core/operations/requests/recommend'

/** A row of evidence with the id it was made under. */
export type Row = Readonly<{ id: string; row: Evidence }>

/** The steps of a set-up, saddle first. */
export const STEPS = ['talk', 'beside', 'knee', 'cranks', 'bars', 'numbers'] as const
export type Step = (typeof STEPS)[number]

export const STEP_NAME: Readonly<Record<Step, string>> = {
  talk: 'Talk',
  beside: 'Beside',
  knee: 'Knee',
  cranks: 'Cranks',
  bars: 'Bars',
  numbers: 'Numbers',
}

/** Current marks by the rows: per axis the latest mark. */
export function currentMarks(rows: readonly Row[]): Marks {
  return rows.reduce<Marks>((marks, { row }) => ({ ...marks, ...row.at }), {})
}

/** Whether the bike was set to marks at all; before that the scales show a proposal. */
export const wasSet = (rows: readonly Row[]): boolean =>
  rows.some(({ row }) => row.kind === 'set' || isSaddleCheck(row))

/** The rows since the saddle was last set: what has been looked at here. */
export function rowsSinceSet(rows: readonly Row[]): readonly Row[] {
  return rows.slice(rows.findLastIndex(({ row }) => row.kind === 'set') + 1)
}

/** The latest row of a kind since the last set, or undefined. */
export function latestSinceSet(rows: readonly Row[], kind: EvidenceKind): Row | undefined {
  return rowsSinceSet(rows).findLast(({ row }) => row.kind === kind)
}

/** Whether the knee over the pedal was looked at since the saddle was set, with a string or by eye. */
export const plumbCheckedSinceSet = (rows: readonly Row[]): boolean =>
  latestSinceSet(rows, 'plumb') !== undefined || latestSinceSet(rows, 'plumbByEye') !== undefined

export const latestRow = (rows: readonly Row[], kind: EvidenceKind): Row | undefined =>
  rows.findLast(({ row }) => row.kind === kind)

/**
 * The step at which a set-up resumes; a rider with numbers on this type starts with the question whether all is as
 * before.
 */
export function resumeStep(rows: readonly Row[], returning = false): Step {
  if (rows.some(({ row }) => KINDS[row.kind].step === 'cranks')) return 'cranks'
  if (wasSet(rows)) return 'knee'
  const onlyCarried = rows.every(({ row }) => KINDS[row.kind].about === 'reported')
  if (rows.length > 0 && !(returning && onlyCarried)) return 'beside'
  return 'talk'
}

/**
 * The next step. Under every school knee and cranks come in one mount and before the bars: a school that sets both
 * heights first does so beside the bike.
 */
export const stepAfter = (step: Step): Step => STEPS[Math.min(STEPS.length - 1, STEPS.indexOf(step) + 1)]

/** The marks after the advised moves. */
export function marksAfter(answer: Recommendation): Marks {
  return { ...answer.marks, ...Object.fromEntries(answer.next.moves.map((move) => [move.axis, move.to])) }
}

/** The marks to bring the bars to, the saddle staying. */
export function marksWithBars(answer: Recommendation, current: Marks): Marks {
  return {
    ...current,
    barHeight: answer.bars.height.label,
    ...(answer.bars.slide && { barSlide: answer.bars.slide.label }),
  }
}

/** Axes of which two sets of marks differ. */
export function differingAxes(bikeType: BikeType, a: Marks, b: Marks): AxisName[] {
  return axesOf(bikeType).filter((axis) => a[axis] !== b[axis])
}

/** Whether every axis of the type has its mark. */
export const hasAllMarks = (bikeType: BikeType, marks: Marks): boolean =>
  axesOf(bikeType).every((axis) => marks[axis] !== undefined)

/** The marks advised at a step; none where the advice is to stop. `base` is what the bars are changed from. */
export function targetMarks(
  answer: Recommendation,
  step: Step,
  { set, shown, base }: Readonly<{ set: boolean; shown: Marks; base: Marks }>,
): Marks {
  if (step === 'bars') return answer.next.forReach ? marksAfter(answer) : marksWithBars(answer, base)
  if (step === 'numbers') return shown
  return !set || answer.next.kind !== 'stop' ? marksAfter(answer) : {}
}
