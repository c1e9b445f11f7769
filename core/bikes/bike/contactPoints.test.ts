import fc from 'fast-check'
import { HOLES_BIKE as bike } from '../../testing/meanRider'
import { contactPoints, resolveMarks } from './contactPoints'

test('with every axis at 0 the contact points are the origins, and the tape reads their lengths', () => {
  const { seat, nose, grip, lengths } = contactPoints(bike, undefined, {})
  expect(seat).toEqual(bike.seatOrigin)
  expect(grip).toEqual(bike.gripOrigin)
  expect(lengths.saddleHeightMm).toBeCloseTo(560, 9)
  expect(lengths.setbackMm).toBeCloseTo(-nose.xMm, 9)
  expect(lengths.reachMm).toBeCloseTo(400 - seat.xMm, 9)
  expect(lengths.stackMm).toBe(600)
})

test('a post through the axle turns each millimetre of mark into a millimetre of saddle height', () => {
  expect(contactPoints(bike, undefined, { seatHeight: 140 }).lengths.saddleHeightMm).toBeCloseTo(700, 9)
})

test('a bike’s own offset moves the part as far as that many millimetres of mark', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -30, max: 30, noNaN: true }),
      fc.double({ min: 0, max: 280, noNaN: true }),
      (offset, mm) => {
        const offset_ = contactPoints(
          bike,
          { offsetsMm: { seatHeight: offset, barSlide: -offset } },
          { seatHeight: mm },
        )
        const marked = contactPoints(bike, undefined, { seatHeight: mm + offset, barSlide: -offset })
        expect(offset_.seat.yMm).toBeCloseTo(marked.seat.yMm, 9)
        expect(offset_.grip.xMm).toBeCloseTo(marked.grip.xMm, 9)
      },
    ),
  )
})

test('tilt never changes the four lengths', () => {
  expect(contactPoints(bike, { tiltDeg: -6 }, { seatHeight: 60 })).toEqual(
    contactPoints(bike, undefined, { seatHeight: 60 }),
  )
})

test('sliding forward by s shortens the reach and the setback by s', () => {
  const [before, after] = [contactPoints(bike, undefined, {}), contactPoints(bike, undefined, { seatSlide: 20 })]
  expect(before.lengths.reachMm - after.lengths.reachMm).toBeCloseTo(20, 9)
  expect(before.lengths.setbackMm - after.lengths.setbackMm).toBeCloseTo(20, 9)
})

test('every wrong mark is named, with the nearest', () => {
  const withoutBarSlide = {
    ...bike,
    axes: { seatHeight: bike.axes.seatHeight, seatSlide: bike.axes.seatSlide, barHeight: bike.axes.barHeight },
  }
  expect(resolveMarks(withoutBarSlide, { seatHeight: '16', barSlide: '1', seatSlide: 'A' })).toEqual({
    positions: { seatSlide: -30 },
    issues: [
      { axis: 'seatHeight', code: 'noSuchLabel', label: '16', nearest: ['15', '14'] },
      { axis: 'barSlide', code: 'noSuchAxis' },
    ],
  })
})
