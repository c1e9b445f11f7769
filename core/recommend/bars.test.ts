import type { BikeType } from '../bike/bike'
import { contactPoints } from '../bike/contactPoints'
import type { Evidence } from '../evidence/registry'
import { FRACTION_OF_STATURE as F } from '../rider/anthropometry'
import { schoolOf, type School } from '../school/school'
import { HOLES_BIKE } from '../testing/meanRider'
import { adviseBars } from './bars'

const SADDLE = { seatHeight: 160, seatSlide: 0 }
const rider = (experience: 'new' | 'regular' | 'experienced'): Evidence[] => [{ kind: 'rider', experience }]
const advise = (
  evidence: Evidence[],
  {
    school = {},
    bikeType = HOLES_BIKE,
    statureMm = 1700,
  }: { school?: Partial<School>; bikeType?: BikeType; statureMm?: number } = {},
) => adviseBars(bikeType, undefined, schoolOf(school), evidence, SADDLE, statureMm)

test('the bars stand as near the middle of their window as the post’s marks allow', () => {
  for (const experience of ['new', 'regular', 'experienced'] as const) {
    const { gripAboveSeatMm, windowMm, fits } = advise(rider(experience))
    expect(Math.abs(gripAboveSeatMm - (windowMm![0] + windowMm![1]) / 2)).toBeLessThanOrEqual(10)
    expect(fits).toBe(true)
  }
})

test('what is said of the height is what the tape would read: grip above the seat point', () => {
  const { height, gripAboveSeatMm } = advise(rider('regular'))
  const { seat, grip } = contactPoints(HOLES_BIKE, undefined, { ...SADDLE, barHeight: height.mm })
  expect(grip.yMm - seat.yMm).toBeCloseTo(gripAboveSeatMm, 9)
})

test('a post that ends too low gives its highest mark and says that it does not fit', () => {
  const short: BikeType = { ...HOLES_BIKE, gripOrigin: { xMm: 400, yMm: 480 } }
  expect(
    advise(rider('new'), {
      bikeType: {
        ...short,
        axes: {
          ...short.axes,
          barHeight: {
            directionDeg: 90,
            scale: {
              marks: [
                { label: '1', mm: 0 },
                { label: '2', mm: 20 },
              ],
              halfMarks: false,
            },
          },
        },
      },
    }),
  ).toMatchObject({
    height: { label: '2' },
    fits: false,
  })
})

test('where nobody said a word of the rider the bars stay up', () => {
  expect(advise([])).toMatchObject({ posture: 'above', why: 'unknown' })
})

test('the latest word about the rider counts', () => {
  expect(advise([...rider('experienced'), { kind: 'rider', experience: 'experienced', backSore: true }])).toMatchObject(
    { posture: 'above', why: 'backSore' },
  )
})

test('the slide follows the forearm: elbow at the nose, fingertips at the grip, within half a mark', () => {
  for (const statureMm of [1600, 1700, 1800]) {
    const { slide, forearmGapMm } = advise([], { statureMm })
    const { nose, grip } = contactPoints(HOLES_BIKE, undefined, { ...SADDLE, barHeight: 0, barSlide: slide!.mm })
    expect(grip.xMm - nose.xMm - (F.forearm + F.hand) * statureMm).toBeCloseTo(forearmGapMm!, 6)
    expect(Math.abs(forearmGapMm!)).toBeLessThanOrEqual(Math.abs(slide!.mm) >= 40 ? 60 : 2.5)
  }
})

test('longer arms sit farther from the bars', () => {
  const slides = [1600, 1650, 1700, 1750].map((statureMm) => advise([], { statureMm }).slide!.mm)
  slides.slice(1).forEach((mm, i) => expect(mm).toBeGreaterThanOrEqual(slides[i]))
})

test('where the gauge is not valid on a type the slide starts at its middle; without a slide there is none', () => {
  expect(advise([], { bikeType: { ...HOLES_BIKE, forearmGaugeValid: false } }).slide).toEqual({ label: '0', mm: 0 })
  const { seatHeight, seatSlide, barHeight } = HOLES_BIKE.axes
  expect(advise([], { bikeType: { ...HOLES_BIKE, axes: { seatHeight, seatSlide, barHeight } } }).slide).toBeUndefined()
})
