import fc from 'fast-check'
import { floorRows } from './floorRows'

const stood = (...at: readonly (readonly [number, number])[]) => at.map(([xM, yM], i) => ({ id: `b${i}`, xM, yM }))

test('rows from the front, each from left to right; a bike a little behind is in the same row', () => {
  const rows = floorRows(stood([6, 2], [1, 2.4], [3, 5], [2, 8]), 10)
  expect(rows.map((row) => row.map(({ id }) => id))).toEqual([['b1', 'b0'], ['b2'], ['b3']])
})

test('where nothing is crowded places stay true to scale', () => {
  const [row] = floorRows(stood([1, 2], [5, 2], [9, 2]), 10)
  expect(row.map(({ at }) => at)).toEqual([1 / 6, 0.5, 5 / 6].map((at) => expect.closeTo(at, 9)))
})

test('no two of a row ever overlap and none leaves the screen, however they stand', () => {
  const bike = fc.tuple(fc.double({ min: -2, max: 14, noNaN: true }), fc.double({ min: 0, max: 12, noNaN: true }))
  fc.assert(
    fc.property(fc.array(bike, { minLength: 1, maxLength: 45 }), (at) => {
      const rows = floorRows(stood(...at), 12)
      expect(rows.flat()).toHaveLength(at.length)
      const gap = 1 / Math.max(...rows.map((row) => row.length))
      for (const row of rows) {
        expect(row[0].at).toBeGreaterThanOrEqual(gap / 2 - 1e-9)
        expect(row[row.length - 1].at).toBeLessThanOrEqual(1 - gap / 2 + 1e-9)
        for (let i = 1; i < row.length; i++) expect(row[i].at - row[i - 1].at).toBeGreaterThanOrEqual(gap - 1e-9)
      }
    }),
    { numRuns: 300, seed: 7 },
  )
})

test('an empty room has no rows', () => {
  expect(floorRows([], 12)).toEqual([])
})
