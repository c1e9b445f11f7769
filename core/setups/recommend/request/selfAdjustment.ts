import { ADJUSTMENTS, type AxisName } from '../../../base/adjustments'
import type { Label } from '../../../base/conventions'
import type { MarkChance } from './request'

/** Marks a rider may try alone, by axis; an axis without any is absent. */
export type SelfAdjustmentRange = Readonly<Partial<Record<AxisName, readonly Label[]>>>

/** Marks next to the current one of each axis whose own check still passes, without a gap. */
export function selfAdjustmentRange(
  chances: Readonly<Partial<Record<AxisName, readonly MarkChance[]>>>,
  marks: Readonly<Partial<Record<AxisName, Label>>>,
): SelfAdjustmentRange {
  const found: Partial<Record<AxisName, readonly Label[]>> = {}
  for (const [axis, list] of Object.entries(chances) as [AxisName, readonly MarkChance[]][]) {
    const here = list.findIndex(({ label }) => label === marks[axis])
    const limit = ADJUSTMENTS[axis].alone
    if (here < 0 || !limit) continue
    const suits = ({ chance, mm }: MarkChance) =>
      chance >= limit.chance && Math.abs(mm - list[here].mm) <= limit.mm + 1e-9
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
