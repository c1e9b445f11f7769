import { learnedMinutes } from './minutes'
import { USUAL_MINUTES } from './room'

test('without own set-ups the usual minutes hold', () => {
  expect(learnedMinutes([])).toEqual({
    new: USUAL_MINUTES.new,
    translate: USUAL_MINUTES.translate,
    recheck: USUAL_MINUTES.recheck,
  })
})

test('few of one’s own move the figure a little, many carry it there', () => {
  const of = (count: number) => learnedMinutes(Array.from({ length: count }, () => ({ need: 'new', minutes: 12 }))).new
  expect(of(1)).toBeCloseTo((12 + 4 * USUAL_MINUTES.new) / 5, 1)
  expect(of(4)).toBeCloseTo((12 + USUAL_MINUTES.new) / 2, 1)
  expect(of(400)).toBeCloseTo(12, 0)
  expect(of(4)).toBeGreaterThan(of(1))
})

test('left open over lunch, or saved in seconds, a set-up is no evidence about hands', () => {
  const odd = [
    { need: 'recheck', minutes: 95 },
    { need: 'recheck', minutes: 0.05 },
  ] as const
  expect(learnedMinutes(odd).recheck).toBe(USUAL_MINUTES.recheck)
})

test('the middle one counts, not the mean: one long set-up among five moves nothing', () => {
  const minutes = (last: number) =>
    learnedMinutes([3, 3, 3, 3, last].map((one) => ({ need: 'translate', minutes: one }))).translate
  expect(minutes(29)).toBe(minutes(3))
})
