import type { AccommodationLimit } from '../../setups/fleet/accommodation'
import { formatBodyLength, type UnitSystem } from '../../base/length'
import { AXIS_NAME } from '../words/phrases'

const COUNTS = ['none', 'one', 'two', 'three', 'four'] as const

/** A share in everyday words: "two in five", "nobody", "nearly everyone". */
export function formatShare(share: number): string {
  if (share > 0.95) return 'nearly everyone'
  const fifths = Math.max(1, Math.min(4, Math.round(5 * share)))
  return `${COUNTS[fifths]} in five`
}

/** "At 150 cm and below, two in five riders find no seat height mark on Bracken." */
export function formatLimit(
  name: string,
  { end, axis, statureMm, withoutShare }: AccommodationLimit,
  shown: UnitSystem,
): string {
  const where =
    `${end === 'short' ? 'At' : 'From'} ${formatBodyLength(statureMm, shown)}` +
    `${end === 'short' ? ' and below' : ' on'}`
  const share = formatShare(withoutShare)
  return (
    `${where}, ${share}${share === 'nearly everyone' ? '' : ' riders'} ` +
    `${share.startsWith('one ') || share === 'nearly everyone' ? 'finds' : 'find'} no ` +
    `${AXIS_NAME[axis]} mark on ${name}.`
  )
}
