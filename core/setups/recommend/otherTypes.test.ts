import type { BikeType } from '../../bikes/bike/bike'
import type { Evidence } from '../../riders/evidence/registry'
import { dispatch } from '../../operations/dispatch'
import { recommend } from '../../operations/requests/recommend'
import { HOLES_BIKE } from '../../testing/meanRider'

/** The bike of holes with its whole post so much higher. */
const higher = (mm: number, name: string): BikeType => ({
  ...HOLES_BIKE,
  name,
  seatOrigin: { xMm: HOLES_BIKE.seatOrigin.xMm - 0.29 * mm, yMm: HOLES_BIKE.seatOrigin.yMm + 0.96 * mm },
  gripOrigin: { xMm: HOLES_BIKE.gripOrigin.xMm, yMm: HOLES_BIKE.gripOrigin.yMm + mm },
})
const tall: Evidence[] = [
  { kind: 'stature', mm: 2080 },
  { kind: 'inseam', mm: 1005, shod: false },
]
const types = [higher(-60, 'Lowmoor'), higher(30, 'Highfell'), higher(120, 'Topcrag')]

test('where the post ends, the type on which this rider’s saddle would be right is named, the best first', () => {
  const { next } = recommend({ bikeType: HOLES_BIKE, evidence: tall, otherTypes: types, samples: 1000 })
  expect(next.kind).toBe('outOfRange')
  expect(next.otherTypes!.map(({ name }) => name)).not.toContain('Lowmoor')
  expect(next.otherTypes![0].name).toBe('Topcrag')
  expect(next.otherTypes![0].chance).toBeGreaterThan(0.3)
  expect(next.sentence).toMatch(/Offer a Topcrag: there the saddle would be right for .* riders like this one\.$/)
})

test('the type is started from all that was read here: a knee read at the end of the post counts as well', () => {
  const read: Evidence = { kind: 'kneeAngle', deg: 52, by: 'goniometer', at: { seatHeight: '15' } }
  const ask = (evidence: Evidence[]) =>
    recommend({ bikeType: HOLES_BIKE, evidence, otherTypes: types.slice(2), samples: 1000 }).next.otherTypes![0]
  expect(ask([...tall, read]).chance).toBeGreaterThan(ask(tall).chance)
})

test('where no type serves that is reported, and where this bike serves none is looked for', () => {
  const short = recommend({ bikeType: HOLES_BIKE, evidence: tall, otherTypes: types.slice(0, 1), samples: 1000 })
  expect(short.next.otherTypes).toEqual([])
  expect(short.next.sentence).toContain('No other type here would suit this rider better.')
  const usual = recommend({
    bikeType: HOLES_BIKE,
    evidence: [{ kind: 'stature', mm: 1700 }],
    otherTypes: types,
    samples: 1000,
  })
  expect(usual.next.otherTypes).toBeUndefined()
})

test('a type with a broken scale is refused by its place in the list', () => {
  const broken = {
    ...HOLES_BIKE,
    axes: { ...HOLES_BIKE.axes, seatSlide: { directionDeg: 0, scale: { marks: [], halfMarks: false } } },
  }
  const said = dispatch('recommend', { bikeType: HOLES_BIKE, evidence: tall, otherTypes: [broken] })
  expect(JSON.stringify(said)).toContain('/otherTypes/0/axes/seatSlide')
})
