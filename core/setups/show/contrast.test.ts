import { HOLES_BIKE, meanRider } from '../../testing/meanRider'
import { contrasts, type ContrastName } from './contrast'

const MARKS = { seatHeight: '8', seatSlide: 'D', barHeight: '7', barSlide: '0' }
const of = (name: ContrastName, statureMm = 1720) =>
  contrasts(HOLES_BIKE, {}, MARKS, meanRider(statureMm)).find((one) => one.name === name)!.figures

test('too low bends the knee more than yours, too high less; each by what is seen at a look', () => {
  const [low, yours, high] = of('height').map(({ pose }) => pose.kneeFlexionDeg)
  expect(low - yours).toBeGreaterThan(15)
  expect(yours - high).toBeGreaterThan(5)
})

test('on a seat too high the foot reaches: its heel is higher than where it suits', () => {
  const heel = ({ pose }: ReturnType<typeof of>[number]) => pose.ankle.yMm - pose.pedal.yMm
  const [, yours, high] = of('height')
  expect(heel(high)).toBeGreaterThan(heel(yours) + 15)
})

test('bars too far lay the trunk down, bars too near put it up; low bars lower than high ones', () => {
  const trunk = (name: ContrastName) => of(name).map(({ pose }) => pose.trunkAngleDeg)
  const [near, yours, far] = trunk('reach')
  expect([near > yours, yours > far]).toEqual([true, true])
  const [low, high] = trunk('bars')
  expect(high - low).toBeGreaterThan(8)
})

test('the same height with the foot level bends the knee less than with the heel up', () => {
  // 15 to 20 mm of seat lie between a level foot and one 15° heel-up (common practice, no source): some 8° of knee.
  const [level, natural] = of('foot').map(({ pose }) => pose.kneeFlexionDeg)
  expect(natural - level).toBeGreaterThan(4)
  expect(natural - level).toBeLessThan(14)
})

test('a contrast that a body cannot be posed in is left out; at marks that do not fit at all there is none', () => {
  expect(contrasts(HOLES_BIKE, {}, { ...MARKS, seatHeight: '15' }, meanRider(1500))).toEqual([])
  for (const { figures } of contrasts(HOLES_BIKE, {}, MARKS, meanRider(1720)))
    expect(figures.every(({ pose }) => pose.outcome === 'posed')).toBe(true)
})
