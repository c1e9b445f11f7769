import type { BikeType } from '../../../bikes/bike/bike'
import type { Marks } from '../../../base/conventions'
import type { Evidence } from '../../../riders/evidence/registry'
import { recommend as answer } from '../../../operations/requests/recommend'
import type { School } from '../../../base/school/school'
import { HOLES_BIKE } from '../../../testing/meanRider'
import { advise } from '../recommend'

/** Bars some centimetres farther away than on the bike of holes. */
const farBars = (mm: number): BikeType => ({ ...HOLES_BIKE, gripOrigin: { xMm: 400 + mm, yMm: 600 } })
/** Everything as wanted on the saddle, which stands back within the plumb line's window, and a look at the bars. */
const here: Marks = { seatHeight: '9', seatSlide: 'B', barHeight: '9', barSlide: '-4' }
const rows: Evidence[] = [
  { kind: 'stature', mm: 1700 },
  { kind: 'rider', experience: 'regular' },
  { kind: 'kneeAngle', deg: 28, by: 'goniometer', at: here },
  { kind: 'kneeAngle', deg: 29, by: 'goniometer', at: here },
  { kind: 'plumb', mm: -11, at: here },
  { kind: 'plumb', mm: -12, at: here },
  { kind: 'reachFeel', seen: 'stretched', at: here },
]
const ask = (mm: number, school: Partial<School> = {}, evidence = rows) =>
  advise({ bikeType: farBars(mm), school, evidence, samples: 1500 })

test('a saddle that stands back goes forward first where the school looks there: pedals right, bars in reach', () => {
  const { next } = ask(25, { reach: 'slideFirst' })
  expect(next.kind).toBe('change')
  const slide = next.moves.find(({ axis }) => axis === 'seatSlide')
  expect(slide!.mm).toBeGreaterThan(0)
  expect(next.reasons.map(({ code }) => code)).toEqual(['slideFirst', 'chance', 'barsSeen'])
  // One thing at a time: the bars stay.
  expect(next.moves.filter(({ axis }) => axis.startsWith('bar'))).toEqual([])
  expect(next.checks).toEqual(['kneeFlexion', 'plumb', 'barAgainstSaddle', 'reach'])
  const plumb = next.expect.find(({ check }) => check === 'plumb')!
  expect(plumb.to).toBeGreaterThan(plumb.from!)
  expect(plumb.to).toBeLessThan(15)
})

test('by the usual rule the slide belongs to the pedals: the bars’ end is stated, and the saddle stays', () => {
  const { next } = ask(25)
  expect(next.moves.filter(({ axis }) => axis.startsWith('seat'))).toEqual([])
})

test('where even a saddle forward does not help, nothing is moved and another type is spoken of', () => {
  const { next } = ask(300, { reach: 'slideFirst' })
  expect(next).toMatchObject({ kind: 'stop', moves: [], barsEnd: 'far' })
  const said = answer({ bikeType: farBars(300), evidence: rows, samples: 1000, otherTypes: [HOLES_BIKE] })
  expect(said.next.sentence).toMatch(/The bars stay too far\. Offer a Testwort: .* reach would be right/)
  expect(answer({ bikeType: farBars(300), evidence: rows, samples: 1000 }).next.sentence).toContain(
    'Offer another type',
  )
})

test('before anybody looked at the bars nothing is moved for them', () => {
  expect(ask(25, { reach: 'slideFirst' }, rows.slice(0, -1)).next.moves).toEqual([])
})

test('a setting on purpose is left alone, until something is moved', () => {
  const low: Marks = { seatHeight: '6', seatSlide: 'D', barHeight: '9', barSlide: '0' }
  const bent: Evidence[] = [
    { kind: 'stature', mm: 1700 },
    { kind: 'kneeAngle', deg: 55, by: 'goniometer', at: low },
  ]
  const nextOf = (...more: Evidence[]) =>
    answer({ bikeType: HOLES_BIKE, evidence: [...bent, ...more], samples: 1000 }).next
  expect(nextOf({ kind: 'set', at: low }).kind).toBe('change')
  const meant: Evidence = { kind: 'set', at: low, meant: 'clinician' }
  expect(nextOf(meant)).toMatchObject({ kind: 'stop', moves: [], meant: 'clinician' })
  expect(nextOf(meant).sentence).toBe('Leave it as it stands: it was set so on purpose, by a clinician’s word.')
  const moved: Evidence = { kind: 'kneeAngle', deg: 50, by: 'goniometer', at: { seatHeight: '7' } }
  expect(nextOf(meant, moved).kind).toBe('change')
  // Also where nobody looked yet, as with numbers that were told.
  const told = answer({ bikeType: HOLES_BIKE, evidence: [meant], samples: 1000 })
  expect(told.next).toMatchObject({ kind: 'stop', moves: [], meant: 'clinician' })
  expect(told.marks).toEqual(low)
})
