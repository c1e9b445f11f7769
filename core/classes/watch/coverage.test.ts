import fc from 'fast-check'
import { coverage, minutesSince, nextToLook, type WatchedBike } from './coverage'

const bike = (id: string, of: Partial<WatchedBike> = {}): WatchedBike => ({
  id,
  xM: 0,
  yM: 0,
  lookedAtMs: null,
  watchFor: false,
  ...of,
})
const MINUTE = 60_000

test('time since a look counts from the start, and never backwards', () => {
  expect(minutesSince({ lookedAtMs: null }, 0, 5 * MINUTE)).toBe(5)
  expect(minutesSince({ lookedAtMs: 2 * MINUTE }, 0, 5 * MINUTE)).toBe(3)
  expect(minutesSince({ lookedAtMs: -10 * MINUTE }, 0, 5 * MINUTE)).toBe(5)
  expect(minutesSince({ lookedAtMs: 9 * MINUTE }, 0, 5 * MINUTE)).toBe(0)
})

test('who was not seen for longest comes first, who is to be watched sooner, and the way is short', () => {
  const clock = { startMs: 0, nowMs: 10 * MINUTE, from: null }
  const seen = [
    bike('a', { lookedAtMs: 9 * MINUTE }),
    bike('b', { lookedAtMs: MINUTE }),
    bike('c', { lookedAtMs: 5 * MINUTE }),
  ]
  expect(nextToLook(seen, clock)).toEqual(['b', 'c', 'a'])
  expect(nextToLook([...seen, bike('w', { lookedAtMs: 4 * MINUTE, watchFor: true })], clock)[0]).toBe('w')
  // Alike in time: along the row, not across the room and back.
  const row = [0, 9, 1, 8, 2].map((xM, i) => bike(`r${i}`, { xM }))
  expect(nextToLook(row, { ...clock, from: 'r0' })).toEqual(['r2', 'r4', 'r3'])
})

test('followed for a class, nobody stays unseen: a look every 12 seconds in a room of 24', () => {
  fc.assert(
    fc.property(fc.array(fc.boolean(), { minLength: 24, maxLength: 24 }), (watch) => {
      let bikes = watch.map((watchFor, i) =>
        bike(`b${i}`, { xM: 1.5 * (i % 6), yM: 1.6 * Math.floor(i / 6), watchFor }),
      )
      let from: string | null = null
      for (let s = 0; s < 45 * 60; s += 12) {
        const nowMs = s * 1000
        const [next] = nextToLook(bikes, { startMs: 0, nowMs, from })
        bikes = bikes.map((one) => (one.id === next ? { ...one, lookedAtMs: nowMs } : one))
        from = next
      }
      const { looked, of, longestMin } = coverage(bikes, { startMs: 0, nowMs: 45 * MINUTE })
      expect([looked, of]).toEqual([24, 24])
      // 24 bikes at 12 s are 4.8 minutes a round; who need not be watched waits at most about twice that.
      expect(longestMin).toBeLessThan(13)
    }),
    { numRuns: 25, seed: 9 },
  )
})
