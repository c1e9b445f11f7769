import { cueResponse, type CueLook } from './cueResponse'

const start = new Date('2026-06-01T00:00:00Z')
const DAY_MS = 86_400_000
/** Looks in as many classes, one a day, so many of them with a cue that held. */
const looks = (held: number, of: number, fromDay: number): CueLook[] =>
  Array.from({ length: of }, (_, k) => ({
    classId: `${fromDay} ${k}`,
    at: new Date(start.getTime() + (fromDay + k) * DAY_MS),
    held: k < held,
  }))

test('the interval is that of Newcombe 1998, table II, method 10', () => {
  // (a) 56/70 − 48/80 and (b) 9/10 − 3/10; half a year holds them.
  const a = cueResponse([...looks(48, 80, -100), ...looks(56, 70, 1)], start).change!
  expect([a.difference, a.low, a.high].map((x) => x.toFixed(4))).toEqual(['0.2000', '0.0524', '0.3339'])
  const b = cueResponse([...looks(3, 10, -20), ...looks(9, 10, 1)], start).change!
  expect([b.low, b.high].map((x) => x.toFixed(4))).toEqual(['0.1705', '0.8090'])
  expect([a.verdict, b.verdict]).toEqual(['moreOften', 'moreOften'])
})

test('few classes tell nothing, and none leave it open', () => {
  expect(cueResponse([...looks(0, 2, -9), ...looks(2, 2, 1)], start).change?.verdict).toBe('unclear')
  expect(cueResponse(looks(2, 3, -9), start)).toEqual({
    before: { changed: 2, of: 3 },
    since: { changed: 0, of: 0 },
    change: null,
  })
  expect(cueResponse([...looks(9, 10, -20), ...looks(1, 12, 1)], start).change?.verdict).toBe('lessOften')
})

test('a class counts once, by its last second look; looks that nobody took again, and old ones, do not count', () => {
  const at = (hour: number) => new Date(start.getTime() + hour * 3_600_000)
  const inClass = (classId: string, hour: number, held: boolean | null): CueLook => ({ classId, at: at(hour), held })
  const found = cueResponse(
    [inClass('a', 3, true), inClass('a', 1, false), inClass('b', 4, null), inClass('old', -24 * 200, true)],
    start,
  )
  expect([found.before, found.since]).toEqual([
    { changed: 0, of: 0 },
    { changed: 1, of: 1 },
  ])
})
