import fc from 'fast-check'
import { axisPositions, contactPoints } from '../../bikes/bike/contactPoints'
import { formatMachineWhy } from '../../messages/setups/register'
import { HOLES_BIKE } from '../../testing/meanRider'
import { positionsOf, spacingMm } from '../../bikes/scale/scale'
import { marksOnMachine } from './onMachine'

const HALVES = {
  ...HOLES_BIKE,
  axes: {
    ...HOLES_BIKE.axes,
    seatHeight: {
      directionDeg: 107,
      scale: { marks: Array.from({ length: 15 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })), halfMarks: true },
    },
  },
}
const marks = { seatHeight: '7', seatSlide: 'C', barHeight: '5', barSlide: '2' }

test('a post that stands low takes a higher mark, with the reason', () => {
  const found = marksOnMachine(
    { bikeType: HALVES, marks },
    { bikeType: HALVES, bike: { offsetsMm: { seatHeight: -9 } } },
  )
  expect(found.marks).toEqual({ ...marks, seatHeight: '7.5' })
  expect(formatMachineWhy(found)).toBe('post reads low')
  expect(found.leftOverMm).toBeCloseTo(1, 6)
})

test('what the machine they were set on was off by counts as well: on its like nothing moves', () => {
  const bike = { offsetsMm: { seatHeight: -9, barHeight: 12 } }
  expect(marksOnMachine({ bikeType: HALVES, bike, marks }, { bikeType: HALVES, bike })).toMatchObject({
    marks,
    moved: [],
  })
})

test('half-way between two marks nobody moves', () => {
  const bike = { offsetsMm: { seatHeight: -5 } }
  expect(marksOnMachine({ bikeType: HALVES, marks }, { bikeType: HALVES, bike }).marks).toEqual(marks)
})

test('a version with other scales is worked out, with a note', () => {
  const turned = { ...HALVES, seatOrigin: { xMm: HALVES.seatOrigin.xMm, yMm: HALVES.seatOrigin.yMm - 40 } }
  const found = marksOnMachine({ bikeType: HALVES, marks }, { bikeType: turned })
  expect(found.translated).toBe(true)
  expect(formatMachineWhy(found)).toBe('worked out for its new marks')
  expect(found.marks.seatHeight).toBe('9')
})

test('wherever the marks reach, the saddle stands within half a mark of where it was, and the bars of it', () => {
  const offset = fc.double({ min: -9, max: 9, noNaN: true })
  const bike = fc.record({ seatHeight: offset, seatSlide: offset, barHeight: offset, barSlide: offset })
  fc.assert(
    fc.property(bike, bike, (first, second) => {
      const [from, to] = [{ offsetsMm: first }, { offsetsMm: second }]
      const found = marksOnMachine({ bikeType: HALVES, bike: from, marks }, { bikeType: HALVES, bike: to })
      {
        const axis = 'seatHeight'
        const { scale } = HALVES.axes[axis]
        const mm = (label: string) => positionsOf(scale).find((one) => one.label === label)!.mm
        const off = mm(found.marks[axis]!) + second[axis] - mm(marks[axis]) - first[axis]
        expect(Math.abs(off)).toBeLessThanOrEqual(spacingMm(scale) / 2 + 0.25 + 1e-6)
      }
      const before = contactPoints(HALVES, from, axisPositions(HALVES, marks))
      const now = contactPoints(HALVES, to, axisPositions(HALVES, found.marks))
      const drop = ({ grip, seat }: typeof now) => grip.yMm - seat.yMm
      expect(Math.abs(drop(now) - drop(before))).toBeLessThanOrEqual(spacingMm(HALVES.axes.barHeight.scale) / 2 + 0.3)
      const { scale } = HALVES.axes.barSlide!
      expect(Math.abs(now.lengths.reachMm - before.lengths.reachMm)).toBeLessThanOrEqual(spacingMm(scale) / 2 + 0.3)
    }),
  )
})
