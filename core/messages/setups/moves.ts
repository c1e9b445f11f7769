import type { BikeType } from '../../bikes/bike/bike'
import type { Move } from '../../setups/recommend/request/request'
import type { UnitSystem } from '../../base/length'
import { ADJUSTMENT_WORDS } from '../words/adjustments'
import { formatLabel, formatSteps } from '../words/labels'

/** "raise the seat one mark, 6 to 7" */
export function formatMove(bikeType: BikeType, move: Move, shown: UnitSystem): string {
  const scale = bikeType.axes[move.axis]?.scale
  const how = scale && move.from !== undefined ? ` ${formatSteps(scale, move.from, move.to, move.mm, shown)}` : ''
  const format = (label: string) => formatLabel(bikeType, move.axis, label)
  return (
    `${ADJUSTMENT_WORDS[move.axis].verbs[move.mm > 0 ? 0 : 1]}${how}, ` +
    `${move.from === undefined ? 'to' : `${format(move.from)} to`} ${format(move.to)}`
  )
}
