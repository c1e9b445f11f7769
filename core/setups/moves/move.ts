import { ADJUSTMENTS, AXES, type AxisName } from '../../base/adjustments'
import type { Label, Marks } from '../../base/conventions'

/** Why a mark is moved between two set-ups; `planned` is a starter raised when its plan comes due. */
export const MOVE_REASONS = ['comfort', 'sign', 'felt', 'checked', 'planned'] as const
/** Those that somebody chooses. */
export const CHOSEN_REASONS = ['comfort', 'sign', 'felt', 'checked'] as const
export type MoveReason = (typeof MOVE_REASONS)[number]

/** Why a second change does not wait: on the day of the first, or while a trial runs. */
export const AGAIN_REASONS = ['tooFar', 'noHelp', 'worse', 'otherThing', 'wish'] as const
export type AgainReason = (typeof AGAIN_REASONS)[number]

/** One axis moved from a mark to another, in the labels of the machine it was moved on. */
export type MarkMove = Readonly<{ axis: AxisName; from: Label; to: Label; why: MoveReason; again?: AgainReason }>

/** A mark with its label as people write it, and its position along the axis, mm. */
export type FloorMark = Readonly<{ label: Label; text: string; mm: number }>
/** The marks of a type's axes, the lowest or rearmost first. */
export type FloorScales = Readonly<Partial<Record<AxisName, readonly FloorMark[]>>>

/** An axis of a machine with its mark, and the marks around it, the lowest or rearmost first. */
export type MovableAxis = Readonly<{ axis: AxisName; label: Label; positions: readonly FloorMark[] }>

/** So many marks to either side can be reached on the floor; farther is a set-up. */
export const MAX_STEPS = 6

/**
 * The axes that can be moved from these marks, in the order of `AXES`, each with at most `MAX_STEPS` marks to either
 * side. An axis without a mark, or with one its scale does not have, is left out, and the cranks, which need a tool.
 */
export function movableAxes(scales: FloorScales, marks: Marks): readonly MovableAxis[] {
  return AXES.filter((axis) => ADJUSTMENTS[axis].carries !== 'cranks').flatMap((axis): MovableAxis[] => {
    const [all, label] = [scales[axis] ?? [], marks[axis]]
    const here = all.findIndex((one) => one.label === label)
    if (here < 0) return []
    return [{ axis, label: label!, positions: all.slice(Math.max(0, here - MAX_STEPS), here + MAX_STEPS + 1) }]
  })
}

/** A label of an axis as people write it; the label itself where the scale does not have it. */
export const labelText = (scales: FloorScales, axis: AxisName, label: Label): string =>
  scales[axis]?.find((one) => one.label === label)?.text ?? label

/** The mark `steps` places from the present one (plus is higher or farther forward); null beyond the scale. */
export function markAt({ label, positions }: MovableAxis, steps: number): FloorMark | null {
  const here = positions.findIndex((one) => one.label === label)
  return positions[here + steps] ?? null
}

/** The seat height `mm` above the present one; null where the scale has no mark there. */
export function raisedTo(scales: FloorScales, marks: Marks, mm: number): Label | null {
  const all = scales.seatHeight ?? []
  const here = all.find(({ label }) => label === marks.seatHeight)
  return (here && all.find((one) => Math.abs(one.mm - here.mm - mm) < 0.5)?.label) ?? null
}

/** How far a mark lies from the present one, mm along the axis: plus is up, or away from the saddle's rear. */
export function movedMm({ label, positions }: MovableAxis, to: Label): number {
  const mmOf = (wanted: Label) => positions.find((one) => one.label === wanted)?.mm ?? 0
  return mmOf(to) - mmOf(label)
}

/**
 * Whether the page asks before this move. True where the target is outside `alone`, the axis' self-adjustment marks;
 * if those are unknown (undefined), where the step is longer than a rider may try.
 */
export function isBeyond(axis: MovableAxis, to: Label, alone: readonly Label[] | undefined): boolean {
  if (to === axis.label) return false
  if (alone) return !alone.includes(to)
  return Math.abs(movedMm(axis, to)) > (ADJUSTMENTS[axis.axis].alone?.mm ?? 0) + 1e-9
}

type KnownMove = Readonly<{ id: string; axis: AxisName; from: Label; to: Label }>

/**
 * A rider's marks after moves. `marks` were read with the moves `known`; `now` are the present ones. Undoes
 * known moves that are absent from `now`, then applies new ones. Ignores a move whose axis is not at its `from`.
 */
export function marksAfter(marks: Marks, known: readonly KnownMove[], now: readonly KnownMove[]): Marks {
  const has = (all: readonly KnownMove[], { id }: KnownMove) => all.some((one) => one.id === id)
  const steps = [
    ...known
      .filter((move) => !has(now, move))
      .toReversed()
      .map(({ axis, from, to }) => ({ axis, from: to, to: from })),
    ...now.filter((move) => !has(known, move)),
  ]
  return steps.reduce<Marks>((at, { axis, from, to }) => (at[axis] === from ? { ...at, [axis]: to } : at), marks)
}
