import { AXES, type AxisName } from '../../base/adjustments'
import type { BikeType } from '../../bikes/bike/bike'
import { MEMBER_COLUMNS, type MemberColumn } from './memberRow'

/** How each column is headed where this product writes it. */
export const COLUMN_HEADING: Readonly<Record<MemberColumn, string>> = Object.freeze({
  memberId: 'member id',
  memberNumber: 'member number',
  name: 'name',
  firstName: 'first name',
  lastName: 'last name',
  email: 'e-mail',
  statureMm: 'body height',
  bikeType: 'bike type',
  purpose: 'purpose',
  seatHeight: 'seat height',
  seatSlide: 'seat slide',
  barHeight: 'bar height',
  barSlide: 'bar slide',
  frameHeight: 'frame height',
  frameSlide: 'frame slide',
  seatExtra: 'second seat adjustment',
  barExtra: 'second bar adjustment',
  crankLength: 'crank length',
  saddleTilt: 'saddle tilt',
  barTurn: 'bar turn',
  certainty: 'how sure',
  soleMm: 'sole mm',
  pedal: 'pedal',
  since: 'since',
})

/**
 * What other lists call them; without capitals, spaces and signs. "Height" alone is not here: see `guessColumns`.
 */
const ALSO_CALLED: Readonly<Record<MemberColumn, readonly string[]>> = {
  memberId: ['rider id'],
  memberNumber: [
    'id',
    'number',
    'no',
    'memberno',
    'membershipnumber',
    'membership',
    'cardnumber',
    'card',
    'customer id',
  ],
  name: ['member', 'rider', 'fullname', 'membername', 'ridername', 'person', 'who'],
  firstName: ['first', 'forename', 'givenname', 'given', 'christianname'],
  lastName: ['last', 'surname', 'familyname', 'family'],
  email: ['mail', 'emailaddress', 'mailaddress'],
  statureMm: ['stature', 'riderheight', 'heightcm', 'heightmm', 'heightin', 'tall'],
  bikeType: ['bike', 'type', 'model', 'biketype'],
  purpose: ['for', 'position'],
  seatHeight: ['seat', 'saddle', 'saddleheight', 'seatpost', 'seatupdown'],
  seatSlide: ['slide', 'foreaft', 'saddleslide', 'seatforeaft', 'saddleforeaft', 'setback'],
  barHeight: ['bars', 'bar', 'handlebar', 'handlebarheight', 'handlebars', 'barupdown'],
  barSlide: ['reach', 'handlebarreach', 'barforeaft', 'handlebarslide', 'barreach'],
  frameHeight: ['frame', 'frameupdown'],
  frameSlide: ['frameforeaft'],
  seatExtra: ['seatextra'],
  barExtra: ['barextra'],
  crankLength: ['crank', 'cranks'],
  saddleTilt: ['tilt', 'seattilt'],
  barTurn: ['barangle', 'handlebarangle'],
  certainty: ['certainty', 'sure'],
  soleMm: ['sole', 'shoe', 'shoes'],
  pedal: ['pedals', 'pedalside'],
  since: ['date', 'seton', 'when', 'updated'],
}

const plain = (heading: string): string => heading.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '')

const AXIS_COLUMNS: readonly MemberColumn[] = ['seatSlide', 'barHeight', 'barSlide']

/** What the adjustments of a studio's types are called on the bikes themselves. */
export const printedNames = (types: readonly BikeType[]): ReadonlyMap<AxisName, readonly string[]> =>
  new Map(AXES.map((axis) => [axis, types.flatMap(({ axes }) => axes[axis]?.name ?? [])]))

/**
 * The column of each heading of a file by its words; null where they do not match, each column once. "Height"
 * is the seat's where the list has other settings of a bike and no seat height, else the rider's. `printed`: what the
 * adjustments are called on the bikes.
 */
export function guessColumns(
  headings: readonly string[],
  printed: ReadonlyMap<string, readonly string[]> = new Map(),
): (MemberColumn | null)[] {
  const taken = new Set<MemberColumn>()
  const find = (fits: (column: MemberColumn) => boolean) => MEMBER_COLUMNS.find((one) => !taken.has(one) && fits(one))
  const own = headings.map((heading) => {
    const called = (column: MemberColumn) => [COLUMN_HEADING[column], ...(printed.get(column) ?? [])]
    const found = find((column) => called(column).some((word) => plain(word) === plain(heading)))
    if (found) taken.add(found)
    return found ?? null
  })
  const guessed = own.map((column, i) => {
    if (column) return column
    const found = find((one) => ALSO_CALLED[one].some((word) => plain(word) === plain(headings[i])))
    if (found) taken.add(found)
    return found ?? null
  })
  return guessed.map((column, i) => {
    if (column || plain(headings[i]) !== 'height') return column
    const ofSeat = !taken.has('seatHeight') && AXIS_COLUMNS.some((axis) => taken.has(axis))
    const meant = ofSeat ? 'seatHeight' : 'statureMm'
    if (taken.has(meant)) return null
    taken.add(meant)
    return meant
  })
}
