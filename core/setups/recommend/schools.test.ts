import type { Evidence } from '../../riders/evidence/registry'
import { recommend } from '../../operations/requests/recommend'
import { HOLES_BIKE as bikeType } from '../../testing/meanRider'
import { starterPlan } from './steps/starter'
import type { School } from '../../base/school/school'

const tape: Evidence[] = [
  { kind: 'stature', mm: 1700 },
  { kind: 'inseam', mm: 820, shod: false },
]
const at = { seatHeight: '9', seatSlide: 'D' }
const ask = (school: Partial<School>, ...rows: Evidence[]) =>
  recommend({ bikeType, school, evidence: [...tape, ...rows], samples: 2000 })
const slideMm = (answer: ReturnType<typeof ask>) => 10 * ('ABCDEFG'.indexOf(answer.marks.seatSlide!) - 3)

test('balance: a long or heavy upper body sits farther back, tight hips farther forward', () => {
  const build = (more: object): Evidence => ({ kind: 'build', torso: 'even', ...more })
  const even = slideMm(ask({ foreAft: 'balance' }, build({})))
  expect(slideMm(ask({ foreAft: 'balance' }, build({ heavyUpperBody: true })))).toBeLessThanOrEqual(even)
  expect(slideMm(ask({ foreAft: 'balance' }, build({ tightHips: true })))).toBeGreaterThan(
    slideMm(ask({ foreAft: 'balance' }, build({ heavyUpperBody: true }))),
  )
})

test('a kneecap’s middle lies 10 mm behind its front: the school decides for a reading without a place', () => {
  const read = (plumbFrom: 'front' | 'middle') =>
    ask({ plumbFrom }, { kind: 'plumb', mm: 5, at }).next.because.find((line) => line.startsWith('The plumb line'))
  expect(read('front')).toMatch(/fell 5 mm ahead/)
  expect(read('middle')).toMatch(/fell 15 mm ahead/)
})

test('newcomers begin one mark lower where the school wants it, with the rides after which it is raised', () => {
  const newcomer: Evidence = { kind: 'rider', experience: 'new' }
  const { starter, next } = ask({ newcomers: 'starterLow' }, newcomer)
  expect(starter).toMatchObject({ from: next.moves[0].to, to: String(Number(next.moves[0].to) - 1), mm: -20 })
  expect(starter!.sentence).toMatch(/after 3 rides raise to/)
  const [from, to] = [starter!.from, starter!.to]
  expect(starterPlan({ starter, next }, to, false)).toEqual({ to: from, afterRides: 3 })
  expect(starterPlan({ starter, next }, from, false)).toBeUndefined()
  // On purpose, without the school: what is advised is what it is raised to.
  const raise = { axis: 'seatHeight', from: '5', to: '6', mm: 20 } as const
  expect(starterPlan({ next: { moves: [raise] } }, '5', true)).toEqual({ to: '6', afterRides: 3 })
  expect(starterPlan({ next: { moves: [raise] } }, '5', false)).toBeUndefined()
  expect(starterPlan({ next: { moves: [{ ...raise, mm: -20 }] } }, '5', true)).toBeUndefined()
  expect(ask({}, newcomer).starter).toBeUndefined()
  expect(ask({ newcomers: 'starterLow' }, { kind: 'rider', experience: 'regular' }).starter).toBeUndefined()
})

test('the pedal’s side ridden on moves the seat by what its surface differs', () => {
  const sided = { ...bikeType, pedalSurfacesMm: { cage: 34, cleat: 14 } }
  const knee = (pedal: 'cage' | 'cleat') =>
    recommend({
      bikeType: sided,
      evidence: [...tape, { kind: 'rider', experience: 'regular', pedal }, { kind: 'plumb', mm: 0, at }],
      samples: 2000,
    }).belief.kneeFlexionDeg.mean
  expect(knee('cage') - knee('cleat')).toBeGreaterThan(6)
})

test('an eye known to read 5° low is believed 5° higher', () => {
  const knee = (kneeBiasDeg: number) =>
    recommend({
      bikeType,
      evidence: [...tape, { kind: 'kneeByEye', seen: 'slightBend', at }],
      observer: { eye: { kneeBiasDeg, kneeSdDeg: 3 } },
      samples: 2000,
    }).belief.kneeFlexionDeg.mean
  expect(knee(-8)).toBeGreaterThan(knee(0) + 1)
  expect(knee(8)).toBeLessThan(knee(0) - 1)
})

test('marks to try alone lie beside where each axis stands, seat height least', () => {
  const rows: Evidence[] = [
    { kind: 'kneeAngle', deg: 30, by: 'goniometer', at },
    { kind: 'plumb', mm: 0, at },
  ]
  const { tryAlone, chances } = ask({}, ...rows)
  for (const label of tryAlone.seatSlide ?? [])
    expect(chances.seatSlide!.find((c) => c.label === label)!.chance).toBeGreaterThanOrEqual(0.75)
  expect(tryAlone.seatSlide?.length).toBeGreaterThan(0)
  expect(tryAlone.seatHeight).toBeUndefined()
})
