import { formatCareState, formatInterval, formatOpened } from '../../messages/bikes/care'
import { byUrgency, CARE_PARTS, careState, intervalOf, opensAtMs, USUAL_INTERVALS } from './care'

const DAY = 86_400_000
const now = Date.UTC(2026, 11, 2, 12)
const said = (state: Parameters<typeof formatCareState>[0]) => formatCareState(state, 'UTC')

test('a part is due by days or by rides, whichever comes first, and says by which', () => {
  const interval = { days: 30, rides: 60 }
  const at = (days: number, rides: number) => careState('barClamp', interval, { atMs: now - days * DAY, rides }, now)
  expect(at(3, 5)).toMatchObject({ outcome: 'good', by: 'days' })
  expect(said(at(3, 5))).toBe('good until 29 Dec')
  expect(at(25, 5)).toMatchObject({ outcome: 'soon', by: 'days' })
  expect(at(3, 55)).toMatchObject({ outcome: 'soon', by: 'rides', ridesLeft: 5 })
  expect(said(at(3, 55))).toBe('in 5 rides')
  expect(at(30, 0)).toMatchObject({ outcome: 'due', by: 'days' })
  expect(said(at(31, 0))).toBe('due since 1 Dec')
  expect(at(3, 60)).toMatchObject({ outcome: 'due', by: 'rides' })
  expect(said(at(3, 60))).toBe('due now')
  expect(said(at(3, 61))).toBe('due for 1 ride')
  expect(said(careState('barClamp', interval, null, now))).toBe('not seen to yet')
})

test('a machine’s own interval outranks the studio’s, and that the usual one', () => {
  expect(intervalOf('bolts', null, null)).toEqual(USUAL_INTERVALS.bolts)
  expect(intervalOf('bolts', { bolts: { days: 14 } }, undefined)).toEqual({ days: 14 })
  expect(intervalOf('bolts', { bolts: { days: 14 } }, { bolts: { rides: 20 } })).toEqual({ rides: 20 })
  expect(intervalOf('seatPost', null, null)).toBeNull()
  expect(formatInterval({ days: 30, rides: 60 })).toBe('every 30 days or 60 rides')
})

test('the most urgent first, then as one walks around the bike', () => {
  const state = (part: (typeof CARE_PARTS)[number], days: number | null) =>
    careState(part, { days: 30 }, days === null ? null : { atMs: now - days * DAY, rides: 0 }, now)
  const states = [state('straps', 2), state('pins', 40), state('bolts', null), state('posts', 27), state('pedals', 50)]
  expect(byUrgency(states).map(({ part }) => part)).toEqual(['pins', 'pedals', 'bolts', 'posts', 'straps'])
})

test('a new saddle opens tape and tilt, new bars the tape, new straps nothing', () => {
  const deeds = [
    { part: 'saddle', deed: 'done', atMs: 50 },
    { part: 'saddle', deed: 'replaced', atMs: 20 },
    { part: 'bars', deed: 'replaced', atMs: 30 },
    { part: 'straps', deed: 'replaced', atMs: 90 },
  ] as const
  expect([opensAtMs('tape', deeds), opensAtMs('tilt', deeds), opensAtMs('pedals', deeds)]).toEqual([30, 20, -Infinity])
  expect(formatOpened('saddle')).toMatch(/^Saddle replaced: .*the board across the saddle/)
  expect(formatOpened('straps')).toBeNull()
})
