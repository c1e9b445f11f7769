import fc from 'fast-check'
import { angleAtDeg, distanceMm, intersectCircles, spanMm } from './geometry'

const point = fc.record({
  xMm: fc.double({ min: -900, max: 900, noNaN: true }),
  yMm: fc.double({ min: -900, max: 900, noNaN: true }),
})
const link = fc.double({ min: 150, max: 700, noNaN: true })

test('a right angle is 90 degrees, a straight limb 180', () => {
  const at = { xMm: 0, yMm: 0 }
  expect(angleAtDeg({ xMm: 5, yMm: 0 }, at, { xMm: 0, yMm: 7 })).toBeCloseTo(90, 10)
  expect(angleAtDeg({ xMm: 5, yMm: 0 }, at, { xMm: -7, yMm: 0 })).toBeCloseTo(180, 10)
})

test('where two links meet, both keep their lengths; where they do not, the missing millimetres close the gap', () => {
  fc.assert(
    fc.property(point, point, link, link, (a, b, ab, bb) => {
      const met = intersectCircles(a, ab, b, bb, 'forward')
      if (met.outcome === 'met') {
        expect(distanceMm(a, met.point)).toBeCloseTo(ab, 4)
        expect(distanceMm(b, met.point)).toBeCloseTo(bb, 4)
      } else {
        const gap = distanceMm(a, b)
        expect(Math.max(gap - (ab + bb), Math.abs(ab - bb) - gap, 0)).toBeCloseTo(met.missingMm, 6)
      }
    }),
  )
})

test('of the two meeting points, the forward one lies farther ahead and the upper one higher', () => {
  fc.assert(
    fc.property(point, point, link, link, (a, b, ab, bb) => {
      const [forward, upper] = [intersectCircles(a, ab, b, bb, 'forward'), intersectCircles(a, ab, b, bb, 'upper')]
      fc.pre(forward.outcome === 'met' && upper.outcome === 'met')
      if (forward.outcome !== 'met' || upper.outcome !== 'met') throw new Error('held by the precondition')
      expect(forward.point.xMm).toBeGreaterThanOrEqual(upper.point.xMm - 1e-6)
      expect(upper.point.yMm).toBeGreaterThanOrEqual(forward.point.yMm - 1e-6)
    }),
  )
})

test('a straight joint spans both links, a closed one their difference', () => {
  expect(spanMm(400, 300, 0)).toBeCloseTo(700, 9)
  expect(spanMm(400, 300, 180)).toBeCloseTo(100, 9)
})

test('a leg stretched to the last rounding error is still posed, one millimetre more is not', () => {
  const hip = { xMm: 0, yMm: 0 }
  expect(intersectCircles(hip, 400, { xMm: 0, yMm: -800 }, 400, 'forward').outcome).toBe('met')
  expect(intersectCircles(hip, 400, { xMm: 0, yMm: -801 }, 400, 'forward')).toEqual({
    outcome: 'unreachable',
    missingMm: 1,
  })
  expect(intersectCircles(hip, 400, { xMm: 0, yMm: -90 }, 300, 'forward')).toEqual({
    outcome: 'unreachable',
    missingMm: 10,
  })
})
