import { createRng } from '../../base/rng'
import { shareDifference, wilson } from './proportions'

test('the interval of a difference is Newcombe’s own worked example', () => {
  // Newcombe 1998, Statistics in Medicine 17:873–890, table II: 56/70 and 48/80, method 10: 0.0524 to 0.3339 (the
  // figures from memory).
  const { difference, low, high } = shareDifference({ changed: 56, of: 70 }, { changed: 48, of: 80 })
  expect(difference).toBeCloseTo(0.2, 6)
  expect(low).toBeCloseTo(0.0524, 4)
  expect(high).toBeCloseTo(0.3339, 4)
})

test('Wilson’s interval is that of the score test: at its ends the test’s statistic is 1.96', () => {
  for (const [changed, of] of [
    [1, 10],
    [7, 12],
    [30, 40],
  ]) {
    const { low, high } = wilson({ changed, of })
    for (const p of [low, high])
      expect(Math.abs(changed / of - p) / Math.sqrt((p * (1 - p)) / of)).toBeCloseTo(1.959964, 4)
  }
  expect(wilson({ changed: 0, of: 0 })).toEqual({ low: 0, high: 1 })
})

test('19 of 20 intervals hold the true difference, whatever it is', () => {
  const random = createRng(77)
  let held = 0
  const draws = 3000
  for (let i = 0; i < draws; i++) {
    const [p1, p2] = [0.1 + 0.8 * random.uniform(), 0.1 + 0.8 * random.uniform()]
    const [n1, n2] = [5 + Math.floor(20 * random.uniform()), 5 + Math.floor(20 * random.uniform())]
    const count = (n: number, p: number) => Array.from({ length: n }, () => random.uniform() < p).filter(Boolean).length
    const { low, high } = shareDifference({ changed: count(n1, p1), of: n1 }, { changed: count(n2, p2), of: n2 })
    if (p1 - p2 >= low && p1 - p2 <= high) held += 1
  }
  expect(held / draws).toBeGreaterThan(0.94)
  expect(held / draws).toBeLessThan(0.985)
})
