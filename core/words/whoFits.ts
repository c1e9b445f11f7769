import type { FitLimit } from '../fleet/whoFits'
import { bodyLengthSaid, type LengthShown } from '../units/length'
import { AXIS_NAME } from './phrases'

const COUNTS = ['none', 'one', 'two', 'three', 'four'] as const

/** A share as people say it: "two in five", "nobody", "nearly everyone". */
export function shareSaid(share: number): string {
  if (share > 0.95) return 'nearly everyone'
  const fifths = Math.max(1, Math.min(4, Math.round(5 * share)))
  return `${COUNTS[fifths]} in five`
}

/** "Below 154 cm two in five find no seat height mark on Bracken." */
export function limitSaid(name: string, { end, axis, statureMm, withoutShare }: FitLimit, shown: LengthShown): string {
  const where = `${end === 'short' ? 'At' : 'From'} ${bodyLengthSaid(statureMm, shown)}${end === 'short' ? ' and below' : ' on'}`
  const share = shareSaid(withoutShare)
  return `${where} ${share} ${share.startsWith('one ') || share === 'nearly everyone' ? 'finds' : 'find'} no ${AXIS_NAME[axis]} mark on ${name}.`
}
