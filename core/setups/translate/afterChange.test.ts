import { TYPES } from '@/scripts/netloftHall'
import { axesOf } from '../../bikes/bike/bike'
import { CHANGES, type Change } from '../register/entry'
import { findPosition, positionsOf, spacingMm } from '../../bikes/scale/scale'
import type { Marks } from '../../base/conventions'
import { dispatch } from '../../operations/dispatch'
import { afterChange } from './afterChange'

const types = Object.values(TYPES)
const halfWay = (bikeType: (typeof types)[number], axis: keyof Marks) => {
  const all = positionsOf(bikeType.axes[axis]!.scale)
  return all[Math.floor(all.length / 2)].label
}
const middle = (bikeType: (typeof types)[number]): Marks =>
  Object.fromEntries(axesOf(bikeType).map((axis) => [axis, halfWay(bikeType, axis)]))
const mmOf = (bikeType: (typeof types)[number], axis: 'seatHeight' | 'seatSlide' | 'barHeight', marks: Marks) => {
  const found = findPosition(bikeType.axes[axis]!.scale, marks[axis]!)
  if (found.outcome !== 'found') throw new Error(marks[axis])
  return found.stop.mm
}
/** How far seat and grip are wanted from where they stood, before marks round it. */
function wanted(bikeType: (typeof types)[number], what: Change, mm: number) {
  const { contact } = afterChange({ bikeType, marks: middle(bikeType) }, what, mm)
  return contact
}

test.each(types)('a thicker sole wants the saddle higher by about as much, on %p', (bikeType) => {
  const before = wanted(bikeType, 'shoes', 0)
  const after = wanted(bikeType, 'shoes', 10)
  // Sole and saddle rise together: leg and crank see nothing of it.
  expect(after.wanted.seat.yMm - before.wanted.seat.yMm).toBeGreaterThan(7)
  expect(after.wanted.seat.yMm - before.wanted.seat.yMm).toBeLessThan(13)
  expect(Math.abs(after.wanted.seat.xMm - before.wanted.seat.xMm)).toBeLessThan(6)
})

test('a sole that leaves the seat where its marks are leaves the bars too', () => {
  for (const bikeType of types)
    for (const mm of [4, 6, 8, 10]) {
      const marks = middle(bikeType)
      const found = afterChange({ bikeType, marks }, 'shoes', mm)
      const { seatHeight, seatSlide, ...bars } = found.marks
      if (seatHeight !== marks.seatHeight || seatSlide !== marks.seatSlide) continue
      expect(bars.barHeight).toBe(marks.barHeight)
    }
})

test.each(types)('a cleat moved back wants the saddle back and hardly lower, on %p', (bikeType) => {
  const before = wanted(bikeType, 'cleats', 0)
  const after = wanted(bikeType, 'cleats', 8)
  const back = before.wanted.seat.xMm - after.wanted.seat.xMm
  expect(back).toBeGreaterThan(1)
  expect(back).toBeLessThan(16)
})

test.each(types)('what the saddle gains in height the post gives up, and the bars stay, on %p', (bikeType) => {
  const marks = middle(bikeType)
  for (const what of ['saddle', 'gelCover'] as const) {
    const found = afterChange({ bikeType, marks }, what, 40)
    const downMm = mmOf(bikeType, 'seatHeight', marks) - mmOf(bikeType, 'seatHeight', found.marks)
    expect(downMm).toBeGreaterThan(25)
    expect(downMm).toBeLessThan(55)
    // Against the saddle, as its marks let it stand, the bars are where they were.
    expect(Math.abs(found.barsAgainstSaddleMm)).toBeLessThanOrEqual(spacingMm(bikeType.axes.barHeight.scale) / 2 + 1)
  }
})

test.each(types)('a post that had slipped: what was checked was lower, and so are the marks, on %p', (bikeType) => {
  const marks = middle(bikeType)
  const found = afterChange({ bikeType, marks }, 'postSlipped', 40)
  const downMm = mmOf(bikeType, 'seatHeight', marks) - mmOf(bikeType, 'seatHeight', found.marks)
  expect(downMm).toBeGreaterThan(25)
  expect(downMm).toBeLessThan(55)
})

test.each(types.flatMap((type) => CHANGES.map((what) => [type, what] as const)))(
  'nothing changed moves nothing, and there and back is home: %p, %p',
  (bikeType, what) => {
    const marks = middle(bikeType)
    expect(afterChange({ bikeType, marks }, what, 0).marks).toEqual(marks)
    const there = wanted(bikeType, what, 6)
    const back = wanted(bikeType, what, -6)
    const still = wanted(bikeType, what, 0)
    const sum = there.wanted.seat.yMm + back.wanted.seat.yMm - 2 * still.wanted.seat.yMm
    expect(Math.abs(sum)).toBeLessThan(1)
  },
)

test('as an operation: in words, and a label the type does not have is reported with its place', () => {
  const [bikeType] = types
  const request = { bikeType, marks: middle(bikeType), what: 'shoes', mm: 12 }
  expect(dispatch('afterChange', request)).toMatchObject({ sentence: expect.stringMatching(/^On Sorrel: /) })
  const faulty = dispatch('afterChange', { ...request, marks: { seatHeight: '99' }, mm: 12 })
  expect(faulty).toMatchObject({ error: { faults: [{ pointer: '/marks/seatHeight' }] } })
  expect(dispatch('afterChange', { ...request, mm: 400 })).toMatchObject({ error: { faults: [{ pointer: '/mm' }] } })
})
