import { createRng } from '../../base/rng'
import { tapeAt } from '../../simulated/simulatedTape'
import { HOLES_BIKE } from '../../testing/meanRider'
import type { Bike } from '../bike/bike'
import { detectDrift, residualsOf, fitOffset } from './machineOffset'
import { contactPoints, resolveMarks } from '../bike/contactPoints'

const marks = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0' }
const read = (bike: Bike, at = marks) => ({
  marks: at,
  lengths: contactPoints(HOLES_BIKE, bike, resolveMarks(HOLES_BIKE, at).positions).lengths,
})

test(
  'one reading of all four lengths finds every axis’ own offset, a little held back by ' + 'what machines usually do',
  () => {
    const { offsetsMm, sdMm } = fitOffset(HOLES_BIKE, [
      read({ offsetsMm: { seatHeight: -6, seatSlide: 4, barHeight: 8, barSlide: -3 } }),
    ])
    expect(Math.abs(offsetsMm.seatHeight! - -6)).toBeLessThan(0.8)
    expect(Math.abs(offsetsMm.seatSlide! - 4)).toBeLessThan(0.8)
    expect(Math.abs(offsetsMm.barHeight! - 8)).toBeLessThan(0.8)
    expect(Math.abs(offsetsMm.barSlide! - -3)).toBeLessThan(0.8)
    expect(sdMm.seatHeight!).toBeLessThan(2)
  },
)

test('what was not read stays at 0 and unsure; the type’s own doubt is added', () => {
  const { offsetsMm, sdMm } = fitOffset(
    HOLES_BIKE,
    [{ marks, lengths: { saddleHeightMm: read({}).lengths.saddleHeightMm } }],
    { barHeight: 3 },
  )
  expect(offsetsMm.barHeight).toBeCloseTo(0, 6)
  expect(sdMm.barHeight).toBeCloseTo(Math.hypot(6, 3), 1)
})

test('two readings know more than one', () => {
  const random = createRng(3)
  const [one, two] = [marks, { ...marks, seatHeight: '12' }].map((at) => tapeAt(HOLES_BIKE, at, random, 1.5))
  expect(fitOffset(HOLES_BIKE, [one, two]).sdMm.seatHeight!).toBeLessThan(fitOffset(HOLES_BIKE, [one]).sdMm.seatHeight!)
})

test('agreeing within 5 mm is silent; the misses are read minus stated', () => {
  expect(detectDrift(HOLES_BIKE, undefined, read({ offsetsMm: { seatHeight: -4 } }))).toEqual([])
  expect(residualsOf(HOLES_BIKE, undefined, read({ offsetsMm: { barHeight: 7 } })).stackMm).toBeCloseTo(7, 6)
})

test.each([
  ['a post that settled by 9 mm', { seatHeight: -9 }, 'saddleHeightMm', 'postSlipped'],
  ['a mark read one hole too high', { seatHeight: 20 }, 'saddleHeightMm', 'wrongMark'],
  ['another saddle, 12 mm farther back', { seatSlide: -12 }, 'setbackMm', 'saddleSwapped'],
  ['bars that sit 8 mm higher', { barHeight: 8 }, 'stackMm', 'barMoved'],
])('%s is named with its likely cause', (_, offsetsMm, length, cause) => {
  expect(detectDrift(HOLES_BIKE, undefined, read({ offsetsMm }))).toContainEqual(
    expect.objectContaining({ length, cause }),
  )
})
