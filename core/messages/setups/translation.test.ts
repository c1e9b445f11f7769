import { dispatch } from '../../operations/dispatch'
import type { TranslateResponse } from '../../operations/requests/translate'
import { HOLES_BIKE } from '../../testing/meanRider'

const marks = { seatHeight: '9', seatSlide: 'D', barHeight: '6', barSlide: '0' }
const ask = (to: object, more: object = {}) =>
  dispatch('translate', { from: { bikeType: HOLES_BIKE, marks }, to, ...more }) as TranslateResponse

test('the same bike is just as before, and nothing is explained but the rule', () => {
  const { sentence, because } = ask({ bikeType: HOLES_BIKE })
  expect(sentence).toBe('On Testwort: 9 · D · 6 · 0: just as before.')
  expect(because).toHaveLength(1)
})

test('cranks, pedals and what rounding leaves are stated with their sign and the knee they make', () => {
  const { sentence, because, residueMm } = ask({ bikeType: { ...HOLES_BIKE, crankMm: 178, pedalSurfaceMm: 20 } })
  expect(because).toEqual(
    expect.arrayContaining([
      'Its cranks are 8 mm longer, so the saddle goes down.',
      'Its pedals stand 6 mm higher, and the saddle with them.',
    ]),
  )
  expect(sentence).toContain(residueMm.saddleHeightMm > 0 ? 'the saddle' : 'lower')
})

test('what is left of one part is stated together', () => {
  const slide = {
    directionDeg: 0,
    scale: {
      marks: [
        { label: 'A', mm: -6 },
        { label: 'B', mm: 30 },
      ],
      halfMarks: false,
    },
  }
  const bikeType = { ...HOLES_BIKE, crankMm: 178, axes: { ...HOLES_BIKE.axes, seatSlide: slide } }
  expect(ask({ bikeType }).sentence).toMatch(/the saddle \d+ mm (higher|lower), \d+ mm farther (back|forward)/)
})

test('where the saddle ends another type is to be offered, with what is missing', () => {
  const axes = {
    ...HOLES_BIKE.axes,
    seatHeight: { directionDeg: 107, scale: { marks: HOLES_BIKE_MARKS.slice(0, 2), halfMarks: false } },
  }
  const { sentence, because } = ask({ bikeType: { ...HOLES_BIKE, axes } })
  expect(sentence).toMatch(/the nearest it offers: offer another type\.$/)
  expect(because.join(' ')).toMatch(/Seat height: ends at 2, 14\d mm short\./)
  expect(because.join(' ')).toMatch(/A knee of 30° becomes about \d+° there\./)
})
const HOLES_BIKE_MARKS = 'marks' in HOLES_BIKE.axes.seatHeight.scale ? HOLES_BIKE.axes.seatHeight.scale.marks : []

test('a mark the source does not have, and lengths no bike has, are refused with their place', () => {
  const text = (answer: object) => JSON.stringify(answer)
  expect(
    text(
      dispatch('translate', {
        from: { bikeType: HOLES_BIKE, marks: { seatHeight: 'Q' } },
        to: { bikeType: HOLES_BIKE },
      }),
    ),
  ).toContain('/from/marks/seatHeight')
  const lengths = { saddleHeightMm: 72, setbackMm: 50, reachMm: 650, stackMm: 700 }
  const inches = dispatch('translate', {
    from: { lengths, crankMm: 170, noseAheadMm: 150 },
    to: { bikeType: HOLES_BIKE },
  })
  expect(text(inches)).toContain('/from/lengths/saddleHeightMm')
})
