import type { Evidence } from '../evidence/registry'
import { recommend } from '../../operations/requests/recommend'
import { HOLES_BIKE as bikeType } from '../../testing/meanRider'

const at = { seatHeight: '9', seatSlide: 'D' }
const tape: Evidence[] = [{ kind: 'stature', mm: 1700 }]
const ask = (...evidence: Evidence[]) => recommend({ bikeType, evidence: [...tape, ...evidence], samples: 2000 })
const gonio = (deg: number, side?: 'left' | 'right'): Evidence => ({
  kind: 'kneeAngle',
  deg,
  by: 'goniometer',
  at,
  ...(side && { side }),
})
const look = (seen: 'locked' | 'slightBend' | 'deepBend'): Evidence => ({ kind: 'kneeByEye', seen, at })
const times = (count: number, row: Evidence) => Array.from({ length: count }, () => row)
const sd = (...evidence: Evidence[]) => ask(...evidence).belief.kneeFlexionDeg.sd
const chanceHere = (...evidence: Evidence[]) =>
  ask(...evidence).chances.seatHeight!.find((c) => c.label === '9')!.chance

test('ten looks at one mark are little more evidence than three, and far less than ten independent ones would', () => {
  const [one, three, ten] = [1, 3, 10].map((n) => sd(...times(n, look('slightBend'))))
  expect(three).toBeLessThan(one)
  expect(ten).toBeLessThanOrEqual(three)
  expect(three - ten).toBeLessThan(0.5 * (one - ten) + 0.2)
  expect(chanceHere(...times(10, look('slightBend')))).toBeLessThan(0.85)
})

test('a repeat of the goniometer in place narrows, never below the error both share', () => {
  const [one, five] = [1, 5].map((n) => sd(...times(n, gonio(30))))
  expect(five).toBeLessThan(one)
  expect(five).toBeGreaterThan(2 * Math.sqrt(16 / 36) - 0.15)
})

test('15° and 45° at one mark: read again, wide chances, nothing changed', () => {
  const { next, doubts, belief } = ask(gonio(15), gonio(45))
  expect(next).toMatchObject({ kind: 'stop', moves: [], readAgain: true })
  expect(next.checks[0]).toBe('kneeFlexion')
  expect(next.sentence).toMatch(/^Read the knee again at 9/)
  expect(doubts.filter((d) => d.code === 'readAgain').map((d) => d.evidence)).toEqual([1, 2])
  expect(belief.kneeFlexionDeg.sd).toBeGreaterThan(3.5)
  expect(chanceHere(gonio(15), gonio(45))).toBeLessThan(0.9)
})

test('ten locked and ten deep bends are no evidence, and that is stated', () => {
  const { next, belief } = ask(...times(10, look('locked')), ...times(10, look('deepBend')))
  expect(next.readAgain).toBe(true)
  expect(belief.kneeFlexionDeg.sd).toBeGreaterThan(4)
})

test('no single last look overrides five', () => {
  const outvoted = ask(...times(5, look('slightBend')), look('locked')).next
  expect(outvoted.moves.filter((m) => m.axis === 'seatHeight')).toEqual([])
  expect(outvoted.readAgain).toBeUndefined()
  expect(ask(...times(5, gonio(30)), gonio(37)).next.kind).toBe('stop')
  expect(ask(...times(5, look('deepBend')), look('slightBend')).belief.kneeFlexionDeg.mean).toBeGreaterThan(
    ask(look('slightBend')).belief.kneeFlexionDeg.mean,
  )
})

test(
  'left 25° and right 35° are two knees: distinguished, both must be in the window, and never ' + '30° with certainty',
  () => {
    const both = ask(gonio(25, 'left'), gonio(35, 'right'))
    const asymmetry = both.doubts.find((d) => d.code === 'asymmetry')!
    expect(asymmetry).toMatchObject({ deg: -10 })
    expect(asymmetry.say).toMatch(
      /^Left and right differ by 10°, the left leg is the straighter one\. Look for a twisted saddle/,
    )
    const chance = both.chances.seatHeight!.find((c) => c.label === '9')!.chance
    expect(chance).toBeLessThan(0.75)
    expect(chance).toBeLessThan(chanceHere(gonio(30, 'left'), gonio(30, 'right')) - 0.2)
    expect(ask(gonio(30, 'left'), gonio(31, 'right')).doubts).toEqual([])
    expect(ask(gonio(22, 'left'), gonio(30, 'right')).next.kind).not.toBe('stop')
  },
)

test('a sole reported later holds from its row on: what was read before it stays as it was read', () => {
  const rider = (soleMm: number): Evidence => ({ kind: 'rider', experience: 'regular', soleMm })
  const leg = (...evidence: Evidence[]) => ask(...evidence).belief.legMm.mean
  expect(leg(gonio(30), rider(40))).toBeCloseTo(leg(gonio(30)), 0)
  expect(leg(rider(40), gonio(30))).toBeLessThan(leg(gonio(30)) - 5)
  // The knee as it is now, in the thicker sole, is straighter than it was read.
  expect(ask(gonio(30), rider(40)).belief.kneeFlexionDeg.mean).toBeGreaterThan(30 + 5)
})
