import fc from 'fast-check'
import { floorRows } from './floorRows'
import { learnedMinutes } from './minutes'
import { arrangeInRows, overlappingBikes, snapDeg, snapM, withinRoom, type RoomPlan } from './roomPlan'
import { roundSteps } from './round'
import { turnDeg } from './sightLine'

const PLAN: RoomPlan = {
  widthM: 12,
  depthM: 9,
  instructor: { xM: 6, yM: 1 },
  screens: [],
  doors: [],
  fans: [],
}
const ids = (n: number) => Array.from({ length: n }, (_, i) => `b${i}`)

test('everything lands on quarters of a metre and steps of 5°, headings between −179 and 180', () => {
  expect([1.13, 1.12, 0.9].map(snapM)).toEqual([1.25, 1, 1])
  expect([0, 182, -182, 358, 720, -180, 7].map(snapDeg)).toEqual([0, 180, 180, 0, 0, 180, 5])
})

test('up to forty bikes in rows: all within the room, none too close, every one turned to the instructor', () => {
  for (const n of [1, 2, 7, 24, 40]) {
    const stands = arrangeInRows(PLAN, ids(n))
    expect(stands.map(({ id }) => id)).toEqual(ids(n))
    expect(overlappingBikes(stands)).toEqual([])
    for (const stand of stands) {
      expect(withinRoom(PLAN, stand)).toEqual(stand)
      expect(Math.abs(turnDeg(stand, PLAN.instructor))).toBeLessThanOrEqual(2.6)
    }
  }
  expect(arrangeInRows(PLAN, [])).toEqual([])
})

test('bikes closer than two riders have room for are reported in pairs', () => {
  const at = (id: string, xM: number) => ({ id, xM, yM: 3, headingDeg: 0 })
  expect(overlappingBikes([at('a', 1), at('b', 1.5), at('c', 2.1), at('d', 2.7)])).toEqual([['a', 'b']])
})

test('rows on the screen: front first, left to right, none over another, moved no farther than it takes', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ xM: fc.double({ min: 0, max: 12, noNaN: true }), row: fc.integer({ min: 0, max: 4 }) }), {
        minLength: 1,
        maxLength: 40,
      }),
      (bikes) => {
        const stood = bikes.map(({ xM, row }, i) => ({ id: `b${i}`, xM, yM: 2 + 1.6 * row }))
        const rows = floorRows(stood, 12)
        expect(
          rows
            .flat()
            .map(({ id }) => id)
            .sort(),
        ).toEqual(stood.map(({ id }) => id).sort())
        const gap = 1 / Math.max(...rows.map((row) => row.length))
        for (const row of rows) {
          row.forEach(({ at }, i) => {
            expect(at).toBeGreaterThanOrEqual(gap / 2 - 1e-9)
            expect(at).toBeLessThanOrEqual(1 - gap / 2 + 1e-9)
            if (i > 0) expect(at - row[i - 1].at).toBeGreaterThanOrEqual(gap - 1e-9)
          })
        }
      },
    ),
    { seed: 4 },
  )
  const roomy = floorRows(
    [2, 6, 10].map((xM) => ({ id: String(xM), xM, yM: 3 })),
    12,
  )
  expect(roomy[0].map(({ at }) => Math.round(12 * at))).toEqual([2, 6, 10])
})

test('minutes are the studio’s own, shrunk toward the usual while few; what was left open counts for nothing', () => {
  expect(learnedMinutes([])).toEqual({ new: 6, translate: 1.5, recheck: 2 })
  const many = Array.from({ length: 60 }, () => ({ need: 'new', minutes: 9 }) as const)
  expect(learnedMinutes(many).new).toBeCloseTo(8.8, 1)
  expect(learnedMinutes(many.slice(0, 4)).new).toBeCloseTo(7.5, 1)
  expect(
    learnedMinutes([
      { need: 'new', minutes: 95 },
      { need: 'new', minutes: 0.1 },
    ]).new,
  ).toBe(6)
})

test('a round sets everybody by landmark first, in the order they come, then looks where it is likeliest wrong', () => {
  const newcomer = (id: string, of: object = {}) => ({
    id,
    arrivesMin: 0,
    isSet: false,
    isChecked: false,
    wrong: null,
    ...of,
  })
  const steps = roundSteps([
    newcomer('late', { arrivesMin: -2 }),
    newcomer('sure', { isSet: true, wrong: 0.2 }),
    newcomer('early', { arrivesMin: -15 }),
    newcomer('unsure', { isSet: true, wrong: 0.6 }),
    newcomer('done', { isSet: true, isChecked: true, wrong: 0.9 }),
    newcomer('unknown', { isSet: true }),
  ])
  expect(steps).toEqual([
    { id: 'early', act: 'setByLandmark' },
    { id: 'late', act: 'setByLandmark' },
    { id: 'unknown', act: 'check' },
    { id: 'unsure', act: 'check' },
    { id: 'sure', act: 'check' },
  ])
})
