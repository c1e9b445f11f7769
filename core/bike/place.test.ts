import fc from 'fast-check'
import { HOLES_BIKE as bike } from '../testing/meanRider'
import { placeAt, positionsOf } from './place'

test('with every axis at 0 the contact points are the origins, and the tape reads their lengths', () => {
  const { seat, nose, grip, lengths } = placeAt(bike, undefined, {})
  expect(seat).toEqual(bike.seatOrigin)
  expect(grip).toEqual(bike.gripOrigin)
  expect(lengths.saddleHeightMm).toBeCloseTo(560, 9)
  expect(lengths.setbackMm).toBeCloseTo(-nose.xMm, 9)
  expect(lengths.reachMm).toBeCloseTo(400 - seat.xMm, 9)
  expect(lengths.stackMm).toBe(600)
})

test('a post through the axle turns each millimetre of mark into a millimetre of saddle height', () => {
  expect(placeAt(bike, undefined, { seatHeight: 140 }).lengths.saddleHeightMm).toBeCloseTo(700, 9)
})

test('a bike’s own offset moves the part as far as that many millimetres of mark', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -30, max: 30, noNaN: true }),
      fc.double({ min: 0, max: 280, noNaN: true }),
      (offset, mm) => {
        const offset_ = placeAt(bike, { offsetsMm: { seatHeight: offset, barSlide: -offset } }, { seatHeight: mm })
        const marked = placeAt(bike, undefined, { seatHeight: mm + offset, barSlide: -offset })
        expect(offset_.seat.yMm).toBeCloseTo(marked.seat.yMm, 9)
        expect(offset_.grip.xMm).toBeCloseTo(marked.grip.xMm, 9)
      },
    ),
  )
})

test('tilt never changes the four lengths', () => {
  expect(placeAt(bike, { tiltDeg: -6 }, { seatHeight: 60 })).toEqual(placeAt(bike, undefined, { seatHeight: 60 }))
})

test('sliding forward by s shortens the reach and the setback by s', () => {
  const [before, after] = [placeAt(bike, undefined, {}), placeAt(bike, undefined, { seatSlide: 20 })]
  expect(before.lengths.reachMm - after.lengths.reachMm).toBeCloseTo(20, 9)
  expect(before.lengths.setbackMm - after.lengths.setbackMm).toBeCloseTo(20, 9)
})

test('every wrong mark is named, with the nearest', () => {
  const withoutBarSlide = {
    ...bike,
    axes: { seatHeight: bike.axes.seatHeight, seatSlide: bike.axes.seatSlide, barHeight: bike.axes.barHeight },
  }
  expect(positionsOf(withoutBarSlide, { seatHeight: '16', barSlide: '1', seatSlide: 'A' })).toEqual({
    positions: { seatSlide: -30 },
    faults: [
      { axis: 'seatHeight', code: 'noSuchLabel', label: '16', nearest: ['15', '14'] },
      { axis: 'barSlide', code: 'noSuchAxis' },
    ],
  })
})
