import type { BikeType } from '../../../bikes/bike/bike'
import { contactPoints } from '../../../bikes/bike/contactPoints'
import type { Evidence } from '../../../riders/evidence/registry'
import { HOLES_BIKE } from '../../../testing/meanRider'
import { recommend } from '../../../operations/requests/recommend'
import type { EarlierSetup } from './riderHistory'

/** Another type: letters 10 mm apart, the post a little steeper, longer cranks. */
const LETTERS_BIKE: BikeType = {
  ...HOLES_BIKE,
  name: 'Other',
  crankMm: 175,
  axes: {
    ...HOLES_BIKE.axes,
    seatHeight: {
      directionDeg: 105,
      scale: { marks: [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].map((label, i) => ({ label, mm: 10 * i })), halfMarks: false },
    },
  },
}
const at = { seatHeight: '9', seatSlide: 'D' }
const checked: Evidence[] = [
  { kind: 'stature', mm: 1720 },
  { kind: 'kneeAngle', deg: 31, by: 'goniometer', at },
  { kind: 'plumb', mm: 3, at },
]
const earlier = (agoDays: number, evidence = checked): EarlierSetup => ({ bikeType: HOLES_BIKE, evidence, agoDays })
const ask = (history?: EarlierSetup[], evidence: Evidence[] = []) =>
  recommend({ bikeType: LETTERS_BIKE, evidence, history, samples: 2000 })
const startChance = (a: ReturnType<typeof ask>) => {
  const said = a.next.reasons.find((r) => r.code === 'chance')
  return said?.code === 'chance' ? said.chance : 0
}

test('a rider checked on one type starts nearly right on another: the same distance from pedal to seat', () => {
  const known = ask([earlier(30)])
  expect(startChance(known)).toBeGreaterThan(0.6)
  expect(startChance(known)).toBeGreaterThan(2 * startChance(ask()))
  const label = known.next.moves[0].to
  const mm = known.chances.seatHeight!.find((c) => c.label === label)!.mm
  const there = contactPoints(LETTERS_BIKE, undefined, { seatHeight: mm }).lengths.saddleHeightMm + 175
  const here = contactPoints(HOLES_BIKE, undefined, { seatHeight: 160 }).lengths.saddleHeightMm + 170
  expect(Math.abs(there - here)).toBeLessThan(12)
})

test('without history nothing changes, to the last byte', () => {
  expect(JSON.stringify(ask([]))).toBe(JSON.stringify(ask()))
})

test('the same history gives the same bytes, remembered or not, in whatever order it is handed in', () => {
  const two = [earlier(30), earlier(400)]
  expect(JSON.stringify(ask(two))).toBe(JSON.stringify(ask([...two].reverse())))
})

test('chances grow old, and the page notes it', () => {
  const [new_, old, older] = [7, 500, 3000].map((days) => ask([earlier(days)]))
  expect(startChance(old)).toBeLessThan(startChance(new_))
  expect(startChance(older)).toBeLessThan(startChance(old))
  expect(older.next.because.join(' ')).toMatch(/known from an earlier set-up.*drift, so it is less sure/)
  expect(new_.next.because.join(' ')).not.toMatch(/less sure/)
})

test('three set-ups inform more than one; reported shoes more than unreported', () => {
  const sd = (history: EarlierSetup[]) => ask(history).belief.kneeFlexionDeg.sd
  expect(sd([earlier(30), earlier(200), earlier(400)])).toBeLessThan(sd([earlier(400)]))
  const told: Evidence[] = [{ kind: 'rider', experience: 'regular', soleMm: 10 }, ...checked]
  expect(sd([earlier(300, told)])).toBeLessThan(sd([earlier(300)]))
})

test('earlier rows are held to their own bike’s marks', async () => {
  const { dispatch } = await import('../../../operations/dispatch')
  const wrong = earlier(3, [{ kind: 'plumb', mm: 0, at: { seatHeight: 'Q' } }])
  expect(dispatch('recommend', { bikeType: LETTERS_BIKE, evidence: [], history: [wrong] })).toMatchObject({
    error: { faults: [{ pointer: '/history/0/evidence/0/at/seatHeight' }] },
  })
})
