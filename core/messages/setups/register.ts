import { axesOf, type BikeType } from '../../bikes/bike/bike'
import type { Lengths } from '../../bikes/bike/contactPoints'
import { movedAxes, type AxisName, type Marks } from '../../base/conventions'
import type { Basis, Certainty, Change, Footwear, Purpose, Source } from '../../setups/register/entry'
import type { MarksOnMachine } from '../../setups/translate/onMachine'
import type { UnitSystem } from '../../base/length'
import { ADJUSTMENT_WORDS } from '../words/adjustments'
import { formatLabel } from '../words/labels'
import { evidenceName } from '../words/evidenceName'
import { axisName, capitalized, formatLength } from '../words/phrases'
import { formatPedalSide } from '../bikes/bikeNames'
import { formatWhyMoved } from './floorMoves'

/** Why no numbers were saved, where the computation gave none and no reason. */
export const NOT_COMPUTED = 'it could not be worked out'

/** Purposes of numbers. */
export const PURPOSE_NAME: Readonly<Record<Purpose, string>> = Object.freeze({
  usual: 'Usual',
  upright: 'Upright',
  starter: 'Starter',
  road: 'As on the road bike',
})

/** Certainty of saved numbers, in a few words. */
export const CERTAINTY_TEXT: Readonly<Record<Certainty, string>> = Object.freeze({
  told: 'as told, not looked at',
  translated: 'worked out, not looked at',
  landmark: 'by landmark only',
  checked: 'checked on the bike by eye',
  measured: 'measured on the bike',
})

/** The same in one word, for lists. */
export const CERTAINTY_WORD: Readonly<Record<Certainty, string>> = Object.freeze({
  told: 'told',
  translated: 'worked out',
  landmark: 'landmark',
  checked: 'checked',
  measured: 'measured',
})

export const CHANGE_NAME: Readonly<Record<Change, string>> = Object.freeze({
  shoes: 'New shoes',
  cleats: 'Cleats moved',
  saddle: 'Another saddle',
  gelCover: 'A gel cover',
  postSlipped: 'The post had slipped',
})

/** The label of the field for its millimetres. */
export const CHANGE_MM: Readonly<Record<Change, string>> = Object.freeze({
  shoes: 'Sole thicker by',
  cleats: 'Moved toward the heel by',
  saddle: 'Its top stands higher by',
  gelCover: 'Thick, sat on',
  postSlipped: 'Lower than its mark by',
})

/** What a change was: "new shoes, 6 mm thicker". */
export function formatChange(what: Change, mm: number): string {
  const by = formatLength(mm)
  const more: Readonly<Record<Change, readonly [plus: string, minus: string]>> = {
    shoes: ['thicker', 'thinner'],
    cleats: ['toward the heel', 'toward the toes'],
    saddle: ['higher', 'lower'],
    gelCover: ['thick', 'thinner'],
    postSlipped: ['low', 'high'],
  }
  return `${CHANGE_NAME[what].toLowerCase()}, ${by} ${more[what][mm < 0 ? 1 : 0]}`
}

/** Why numbers are what they are: "set up: knee by eye, plumb line". `was`: the date of what was gone back to. */
export function formatBasis(source: Source, basis: Basis, was: string | null): string {
  switch (source) {
    case 'setUp':
      return basis.seen && basis.seen.length > 0 ? `set up: ${basis.seen.map(evidenceName).join(', ')}` : 'set up'
    case 'restored':
      return was ? `back to the numbers of ${was}` : 'back to earlier numbers'
    case 'translated':
      return basis.fromType ? `worked out from ${basis.fromType}` : 'worked out from another type'
    case 'tape':
      return 'from their own bike, by tape'
    case 'change':
      return basis.change ? formatChange(basis.change.what, basis.change.mm) : 'something changed'
    case 'imported':
      return basis.note ? `imported: ${basis.note}` : 'imported from a file'
    case 'trial':
      return basis.note ? `on trial: ${basis.note}` : 'on trial'
    case 'carried':
      return basis.carried ? `by the rider’s own file from ${basis.carried.studio}` : 'by the rider’s own file'
    case 'moved':
      return basis.moved ? formatWhyMoved(basis.moved) : 'moved between two set-ups'
  }
}

/** What `formatMoved` returns where no mark differs. */
export const UNCHANGED = 'as before'

/** "seat height 7 → 8, bar height 5 → 6"; "as before" where nothing moved, null where there was nothing before. */
export function formatMoved(bikeType: BikeType, before: Marks | null, now: Marks): string | null {
  if (!before) return null
  const shown = (axis: AxisName, label: string | undefined) =>
    label === undefined ? '–' : formatLabel(bikeType, axis, label)
  const moved = movedAxes(before, now)
  if (moved.length === 0) return UNCHANGED
  return moved
    .map((axis) => `${axisName(bikeType, axis)} ${shown(axis, before[axis])} → ${shown(axis, now[axis])}`)
    .join(', ')
}

/** The four numbers with which is which, "Seat height 7, seat slide C, bar height 5, bar slide 2". */
export const formatNamedMarks = (bikeType: BikeType, marks: Marks): string =>
  capitalized(
    axesOf(bikeType)
      .map((axis) => {
        const label = marks[axis]
        return `${axisName(bikeType, axis)} ${label === undefined ? '–' : formatLabel(bikeType, axis, label)}`
      })
      .join(', '),
  )

/** Why a machine takes other marks: "slide set far back, bars read low". A low seat or bar gets a higher mark. */
export function formatMachineWhy({ moved, translated }: Pick<MarksOnMachine, 'moved' | 'translated'>): string {
  if (translated) return 'worked out for its new marks'
  return moved
    .map(({ axis, offsetMm, followsSaddle }) => {
      if (followsSaddle) return 'bars follow the saddle'
      const [what, plus, minus] = ADJUSTMENT_WORDS[axis].onMachine
      return `${what} ${offsetMm > 0 ? plus : minus}`
    })
    .join(', ')
}

/** Nearer than this nothing is felt, mm. */
const FELT_FROM_MM = 1.5

/** How the later of two positions differs from the earlier, a line a length; one line where nothing is felt. */
export function formatContactDifference(before: Lengths, now: Lengths, shown: UnitSystem = 'metric'): string[] {
  const parts: readonly (readonly [mm: number, what: string, more: string, less: string])[] = [
    [now.saddleHeightMm - before.saddleHeightMm, 'Saddle', 'higher', 'lower'],
    [now.setbackMm - before.setbackMm, 'Saddle', 'farther back', 'farther forward'],
    [now.reachMm - before.reachMm, 'Reach', 'longer', 'shorter'],
    [now.stackMm - before.stackMm, 'Bars', 'higher', 'lower'],
  ]
  const noticeable = parts.filter(([mm]) => Math.abs(mm) >= FELT_FROM_MM)
  if (noticeable.length === 0) return ['Saddle and bars stand in the same place.']
  return noticeable.map(([mm, what, more, less]) => `${what} ${formatLength(mm, shown)} ${mm > 0 ? more : less}.`)
}

/** "cleats, 12 mm sole"; null where unknown. */
export const formatFootwear = ({ pedal, soleMm }: Footwear): string | null =>
  [formatPedalSide(pedal), soleMm !== undefined && `${soleMm} mm sole`].filter(Boolean).join(', ') || null
