import { contactPoints } from '../../bikes/bike/contactPoints'
import { HOLES_BIKE } from '../../testing/meanRider'
import { lengthsOf, MAX_AGE_DAYS, standingOf } from './riderFile'

const now = new Date('2026-12-01T12:00:00Z')
const good = { isNewer: false, isIntact: true, isKnown: true, issuedAt: new Date('2026-11-01T12:00:00Z'), now }

test('a file is measured where it is whole, known and young; else told, with the first reason', () => {
  expect(standingOf(good)).toEqual({ standing: 'measured' })
  const why = (other: Partial<typeof good>) => {
    const found = standingOf({ ...good, ...other })
    return found.standing === 'told' ? found.why : null
  }
  expect(why({ isNewer: true, isIntact: false })).toBe('newer')
  expect(why({ isIntact: false, isKnown: false })).toBe('changed')
  expect(why({ isKnown: false })).toBe('unknownStudio')
  expect(why({ issuedAt: new Date('2026-12-01T14:00:00Z') })).toBe('future')
  expect(why({ issuedAt: new Date('no date') })).toBe('future')
  expect(why({ issuedAt: new Date(now.getTime() - (MAX_AGE_DAYS + 1) * 86_400_000) })).toBe('old')
  // Clocks of two studios differ by some minutes.
  expect(why({ issuedAt: new Date('2026-12-01T12:20:00Z') })).toBeNull()
})

test('the four lengths of contact points are those of the bike', () => {
  const { seat, nose, grip, lengths } = contactPoints(HOLES_BIKE, {}, { seatHeight: 60, seatSlide: 10, barHeight: 20 })
  const again = lengthsOf({ seat, grip, noseAheadMm: nose.xMm - seat.xMm })
  for (const [name, mm] of Object.entries(lengths))
    expect([name, again[name as keyof typeof again]]).toEqual([name, mm])
})
