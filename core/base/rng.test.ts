import jstat from 'jstat'
import { createRng, normalCdf, normalQuantile } from './rng'

test('the normal distribution between the table’s values is the library’s (jstat), and ends at 0 and 1', () => {
  let worst = 0
  for (let x = -9; x <= 9; x += 0.00137)
    worst = Math.max(worst, Math.abs(normalCdf(x) - jstat.jStat.normal.cdf(x, 0, 1)))
  expect(worst).toBeLessThan(2e-11)
  expect([normalCdf(-Infinity), normalCdf(0), normalCdf(Infinity)]).toEqual([0, 0.5, 1])
})

test('it rises everywhere and undoes the quantile', () => {
  const random = createRng(1)
  for (let i = 0; i < 2000; i++) {
    const x = 16 * random.uniform() - 8
    expect(normalCdf(x + 1e-4)).toBeGreaterThanOrEqual(normalCdf(x))
    const p = random.uniform()
    expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 9)
  }
})
