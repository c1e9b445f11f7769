import type { Disagreement } from '../calibration/offset'
import type { InspectionItem } from '../bike/inspection'
import type { LengthShown } from '../units/length'
import { capitalised, lengthSaid } from './phrases'
import { LENGTH_NAME } from './tape'

const CAUSE: Readonly<Record<Disagreement['cause'], string>> = {
  postSlipped: 'the post may have slipped',
  saddleSwapped: 'the saddle may have been swapped or moved on its rails',
  wrongMark: 'just a mark apart: look whether the right one was read',
  barMoved: 'the bars may have been moved or turned',
  unexplained: 'measure again',
}

/** "Saddle height reads 9 mm less than this bike’s last tape: the post may have slipped." */
export function disagreementSaid({ length, mm, cause }: Disagreement, shown: LengthShown): string {
  return `${capitalised(LENGTH_NAME[length])} reads ${lengthSaid(mm, shown)} ${mm > 0 ? 'more' : 'less'} than this bike’s last tape: ${CAUSE[cause]}.`
}

/** What a round looks at, and what is good. */
export const ITEM_SAID: Readonly<Record<InspectionItem, readonly [string, string]>> = {
  pins: ['Pins and levers', 'hold when shaken'],
  bars: ['Bars', 'do not roll'],
  saddle: ['Saddle', 'straight, does not turn'],
  insertion: ['Insertion marks', 'covered'],
  pedals: ['Pedals and straps', 'tight, whole'],
  cleats: ['Cleat side', 'clips in and out'],
  feet: ['Feet', 'level, none in the air'],
  stop: ['Stop', 'stops the wheel at once'],
}
