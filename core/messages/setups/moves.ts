import type { BikeType } from '../../bikes/bike/bike'
import type { Move } from '../../setups/recommend/request/request'
import type { UnitSystem } from '../../base/length'
import { formatLabel, formatSteps } from '../words/labels'

/** "raise the seat one mark, 6 to 7" */
export function formatMove(bikeType: BikeType, move: Move, shown: UnitSystem): string {
  const scale = bikeType.axes[move.axis]?.scale
  const how = scale && move.from !== undefined ? ` ${formatSteps(scale, move.from, move.to, move.mm, shown)}` : ''
  const format = (label: string) => formatLabel(bikeType, move.axis, label)
  return (
    `${VERBS[move.axis](move.mm)}${how}, ` +
    `${move.from === undefined ? 'to' : `${format(move.from)} to`} ${format(move.to)}`
  )
}

const VERBS: Readonly<Record<Move['axis'], (mm: number) => string>> = {
  seatHeight: (mm) => (mm > 0 ? 'raise the seat' : 'lower the seat'),
  seatSlide: (mm) => (mm > 0 ? 'slide the saddle forward' : 'slide the saddle back'),
  barHeight: (mm) => (mm > 0 ? 'raise the bars' : 'lower the bars'),
  barSlide: (mm) => (mm > 0 ? 'move the bars away' : 'bring the bars nearer'),
}
