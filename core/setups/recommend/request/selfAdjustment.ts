import type { AxisName, Label } from '../../../base/conventions'
import type { MarkChance } from './request'

/** Marks a rider may try alone, by axis; an axis without any is absent. */
export type SelfAdjustmentRange = Readonly<Partial<Record<AxisName, readonly Label[]>>>

/**
 * How sure and how near a mark must be to be tried alone. Fore-aft and the bars are a mild thing to experiment with,
 * seat height is not; 5 to 10 mm on the seat are already big (common practice, no source; the chances are ours).
 */
const LIMIT: Readonly<Record<AxisName, Readonly<{ chance: number; mm: number }>>> = {
  seatHeight: { chance: 0.85, mm: 8 },
  seatSlide: { chance: 0.75, mm: 12 },
  barHeight: { chance: 0.75, mm: 45 },
  barSlide: { chance: 0.75, mm: 25 },
}

/** The length of a mild step on each axis, mm. */
export const SELF_ADJUSTMENT_MM: Readonly<Record<AxisName, number>> = Object.freeze({
  seatHeight: LIMIT.seatHeight.mm,
  seatSlide: LIMIT.seatSlide.mm,
  barHeight: LIMIT.barHeight.mm,
  barSlide: LIMIT.barSlide.mm,
})

/** Marks next to the current one of each axis whose own check still passes, without a gap. */
export function selfAdjustmentRange(
  chances: Readonly<Partial<Record<AxisName, readonly MarkChance[]>>>,
  marks: Readonly<Partial<Record<AxisName, Label>>>,
): SelfAdjustmentRange {
  const found: Partial<Record<AxisName, readonly Label[]>> = {}
  for (const [axis, list] of Object.entries(chances) as [AxisName, readonly MarkChance[]][]) {
    const here = list.findIndex(({ label }) => label === marks[axis])
    if (here < 0) continue
    const suits = ({ chance, mm }: MarkChance) =>
      chance >= LIMIT[axis].chance && Math.abs(mm - list[here].mm) <= LIMIT[axis].mm + 1e-9
    const run = (step: 1 | -1): Label[] => {
      const labels: Label[] = []
      for (let i = here + step; list[i] && suits(list[i]); i += step) labels.push(list[i].label)
      return labels
    }
    const labels = [...run(-1).reverse(), ...run(1)]
    if (labels.length > 0) found[axis] = labels
  }
  return found
}
