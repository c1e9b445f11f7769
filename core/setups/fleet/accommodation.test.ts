import { bottomCrankDeg, type BikeType } from '../../bikes/bike/bike'
import { contactPoints } from '../../bikes/bike/contactPoints'
import { bottomFlexionDeg, prepareLeg } from '../../riders/kinematics/leg'
import { DEFAULT_SOLE_MM } from '../../riders/rider/anthropometry'
import { bodyFromScores, PRIOR_PARTS, priorFor, priorVectorOf } from '../../riders/rider/prior'
import { createRng } from '../../base/rng'
import { positionsOf } from '../../bikes/scale/scale'
import { inWindow, schoolOf } from '../../base/school/school'
import { recommend } from '../../operations/requests/recommend'
import { formatLimit, formatShare } from '../../messages/bikes/accommodation'
import { HOLES_BIKE } from '../../testing/meanRider'
import { fleetAccommodation, accommodationLimits, STATURES_MM, accommodation } from './accommodation'

const fits = accommodation({ bikeType: HOLES_BIKE, riders: 120 })
const of = (type: BikeType) => accommodation({ bikeType: type, riders: 120 })
const short: BikeType = {
  ...HOLES_BIKE,
  axes: {
    ...HOLES_BIKE.axes,
    seatHeight: {
      ...HOLES_BIKE.axes.seatHeight,
      scale: {
        marks: [
          { label: '1', mm: 80 },
          { label: '2', mm: 120 },
          { label: '3', mm: 160 },
        ],
        halfMarks: false,
      },
    },
  },
}

test('statures run from 140 to 205 cm', () => {
  expect([STATURES_MM[0], STATURES_MM[STATURES_MM.length - 1]]).toEqual([1400, 2050])
  expect(fits).toHaveLength(14)
})

test(
  'a long fine scale has a seat mark for nearly everyone in the middle; all together is ' + 'never more than any axis',
  () => {
    const middle = fits.find((f) => f.statureMm === 1700)!
    expect(middle.axes.seatHeight).toBeGreaterThan(0.95)
    for (const f of fits) for (const share of Object.values(f.axes)) expect(f.all).toBeLessThanOrEqual(share + 1e-9)
  },
)

test('marks added never shut anyone out', () => {
  of(short).forEach((f, i) => expect(f.axes.seatHeight!).toBeLessThanOrEqual(fits[i].axes.seatHeight!))
})

test('short of marks at both ends, the sentence names stature, share, axis and type', () => {
  const limits = accommodationLimits(of(short)).filter((l) => l.axis === 'seatHeight')
  expect(limits.map((l) => l.end)).toEqual(['short', 'tall'])
  expect(
    formatLimit('Bracken', { end: 'short', axis: 'seatHeight', statureMm: 1540, withoutShare: 0.4 }, 'metric'),
  ).toBe('At 154 cm and below, two in five riders find no seat height mark on Bracken.')
  expect(
    formatLimit('Bracken', { end: 'tall', axis: 'barSlide', statureMm: 1905, withoutShare: 0.2 }, 'imperial'),
  ).toBe('From 6′3″ on, one in five riders finds no bar slide mark on Bracken.')
  expect([1, 0.8, 0.5, 0.21].map(formatShare)).toEqual([
    'nearly everyone',
    'four in five',
    'three in five',
    'one in five',
  ])
})

test(
  'it agrees with the recommendation: where nearly nobody finds a seat mark, a rider of ' +
    'that stature is told the post ends',
  () => {
    const tall = of(short).find((f) => f.statureMm === 2000)!
    expect(tall.axes.seatHeight).toBeLessThan(0.1)
    expect(recommend({ bikeType: short, samples: 1000, evidence: [{ kind: 'stature', mm: 2000 }] }).next.kind).toBe(
      'outOfRange',
    )
  },
)

test('same seed, same shares; progress is reported once a stature', () => {
  const told: number[] = []
  expect(accommodation({ bikeType: HOLES_BIKE, riders: 120 }, (done) => told.push(done))).toEqual(fits)
  expect(told).toEqual(Array.from({ length: 14 }, (_, i) => i + 1))
})

test(
  'a fleet fits whoever one of its types fits: at least as many as its best type, never ' + 'more than all together',
  () => {
    const other = of(short)
    fits.forEach((fit, i) => {
      const fleet = fleetAccommodation([fit, other[i]])
      expect(fleet).toBeGreaterThanOrEqual(Math.max(fit.all, other[i].all))
      expect(fleet).toBeLessThanOrEqual(Math.min(1, fit.all + other[i].all) + 1e-9)
      expect(fleetAccommodation([fit])).toBeCloseTo(fit.all, 9)
    })
  },
)

test('the stretch of each post is what looking at every mark finds', () => {
  const random = createRng(1)
  const scores = Array.from({ length: 120 }, () => PRIOR_PARTS.map(() => random.normal()))
  const school = schoolOf({})
  const { seatHeight, seatSlide } = HOLES_BIKE.axes
  const seats = positionsOf(seatHeight.scale).flatMap((height) =>
    positionsOf(seatSlide.scale).map(
      (slide) => contactPoints(HOLES_BIKE, undefined, { seatHeight: height.mm, seatSlide: slide.mm }).seat,
    ),
  )
  for (const statureMm of [1400, 1700, 2050]) {
    const table = priorVectorOf(priorFor(school.foot, { statureMm: { mean: statureMm, sd: 0 } }))
    const served = scores.filter((row) => {
      const leg = prepareLeg(bodyFromScores(table, row), DEFAULT_SOLE_MM, HOLES_BIKE, bottomCrankDeg(HOLES_BIKE))
      return seats.some((seat) => inWindow(bottomFlexionDeg(leg, seat), school.kneeWindowDeg))
    })
    expect(fits.find((fit) => fit.statureMm === statureMm)!.axes.seatHeight).toBe(served.length / scores.length)
  }
})
