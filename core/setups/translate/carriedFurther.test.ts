import { createRng } from '../../base/rng'
import { SEAT_AXES } from '../../base/adjustments'
import type { Marks } from '../../base/conventions'
import { axesOf, type Axis, type BikeType } from '../../bikes/bike/bike'
import { axisPositions, contactPoints } from '../../bikes/bike/contactPoints'
import { crankMmAt } from '../../bikes/bike/standing'
import { positionsOf, spacingMm } from '../../bikes/scale/scale'
import { randomType } from '../../simulated/randomType'
import { NO_SLIDE_BIKE, SIX_BIKE } from '../../testing/furtherTypes'
import { HOLES_BIKE } from '../../testing/meanRider'
import { farthestPedalMm } from './contactGeometry'
import { translateMarks } from './translate'

const MARKS: Marks = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0' }

test('further adjustments stay where they are while seat and bars arrive without them', () => {
  const { marks, outOfRange } = translateMarks({
    from: { bikeType: HOLES_BIKE, marks: MARKS },
    to: { bikeType: SIX_BIKE },
  })
  expect(marks).toEqual({ ...MARKS, frameHeight: 'A', crankLength: '170' })
  expect(outOfRange).toEqual([])
})

test('what was reached by a lifted frame is reached by the post, and the cranks stay as long as they were', () => {
  const from = { ...MARKS, frameHeight: 'C', crankLength: '165' }
  const home = translateMarks({ from: { bikeType: SIX_BIKE, marks: from }, to: { bikeType: SIX_BIKE } })
  expect(home.marks).toMatchObject({ seatHeight: '10', frameHeight: 'A', crankLength: '165' })
})

test('where the post ends before the rider does, the frame is lifted', () => {
  const { seatHeight } = HOLES_BIKE.axes
  if (!('marks' in seatHeight.scale)) throw new Error('not printed')
  const short = { ...seatHeight, scale: { ...seatHeight.scale, marks: seatHeight.scale.marks.slice(0, 6) } }
  const to: BikeType = { ...SIX_BIKE, axes: { ...SIX_BIKE.axes, seatHeight: short } }
  const { marks, outOfRange } = translateMarks({ from: { bikeType: HOLES_BIKE, marks: MARKS }, to: { bikeType: to } })
  expect(marks).toMatchObject({ seatHeight: '6', frameHeight: 'C' })
  expect(outOfRange.filter(({ axis }) => axis === 'seatHeight')).toEqual([])
})

test('a slide the target lacks leaves its remainder, and is named nowhere', () => {
  const from = { ...MARKS, seatSlide: 'G' }
  const { marks, outOfRange, residueMm } = translateMarks({
    from: { bikeType: HOLES_BIKE, marks: from },
    to: { bikeType: NO_SLIDE_BIKE },
  })
  expect(marks.seatSlide).toBeUndefined()
  expect(outOfRange).toEqual([])
  const slideMm = positionsOf(HOLES_BIKE.axes.seatSlide.scale).find(({ label }) => label === 'G')!.mm
  expect(residueMm.setbackMm).toBeGreaterThan(slideMm - 8)
})

test('between types drawn at random the leg stays within half a mark there, and half of each at home', () => {
  const random = createRng(3)
  const types = Array.from({ length: 12 }, (_, i) => randomType(createRng(200 + i)))
  const stepMm = (axis: Axis | undefined) => (axis ? spacingMm(axis.scale) : 0)
  const half = ({ axes }: BikeType) => (stepMm(axes.seatHeight) + stepMm(axes.seatSlide)) / 2
  const legMm = (type: BikeType, at: Marks) => {
    const { seat } = contactPoints(type, undefined, axisPositions(type, at))
    return farthestPedalMm(seat, { crankMm: crankMmAt(type, at), pedalSurfaceMm: type.pedalSurfaceMm })
  }
  let seen = 0
  for (let k = 0; k < 80; k++) {
    const [a, b] = [0, 1].map(() => types[Math.floor(random.uniform() * types.length)])
    const marks: Marks = Object.fromEntries(
      axesOf(a).map((axis) => {
        const positions = positionsOf(a.axes[axis]!.scale)
        return [axis, positions[Math.floor(positions.length * (0.3 + 0.4 * random.uniform()))].label]
      }),
    )
    const to = translateMarks({ from: { bikeType: a, marks }, to: { bikeType: b } })
    const back = translateMarks({ from: { bikeType: b, marks: to.marks }, to: { bikeType: a } })
    if ([...to.outOfRange, ...back.outOfRange].some(({ axis }) => SEAT_AXES.includes(axis))) continue
    seen++
    expect(Math.abs(legMm(b, to.marks) - legMm(a, marks))).toBeLessThan(half(b) + 0.1)
    expect(Math.abs(legMm(a, back.marks) - legMm(a, marks))).toBeLessThan(half(a) + half(b) + 0.1)
  }
  expect(seen).toBeGreaterThan(50)
})
