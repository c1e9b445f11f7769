import { recommend } from '@/core/operations/requests/recommend'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { limbPath } from '../body/limb'
import { sideScene } from './sideView'

const rider = recommend({ bikeType: HOLES_BIKE, evidence: [{ kind: 'stature', mm: 1700 }], samples: 300 }).belief.rider
const scene = (seatHeight: string) =>
  sideScene(HOLES_BIKE, {}, { seatHeight, seatSlide: 'D', barHeight: '6', barSlide: '0' }, rider)

test(
  'the drawing is to scale: one mark up moves the drawn saddle by that mark’s millimetres, ' +
    'and straightens the leg',
  () => {
    const [low, high] = [scene('7'), scene('8')]
    expect(Math.hypot(high.seat.xMm - low.seat.xMm, high.seat.yMm - low.seat.yMm)).toBeCloseTo(20, 6)
    if (low.near.outcome !== 'posed' || high.near.outcome !== 'posed') throw new Error('not posed')
    expect(high.near.kneeFlexionDeg).toBeLessThan(low.near.kneeFlexionDeg)
  },
)

test('the picture’s frame does not move while marks move, and holds the rider', () => {
  const [low, high] = [scene('3'), scene('9')]
  expect(low.frame).toEqual(high.frame)
  if (high.near.outcome !== 'posed') throw new Error('not posed')
  expect(high.near.shoulder.yMm).toBeLessThan(high.frame.topMm - 200)
})

test('the drawn elbow keeps upper arm and forearm at their lengths, below the line to the grip', () => {
  const { near, nearElbow, grip } = scene('8')
  if (near.outcome !== 'posed' || !nearElbow) throw new Error('not posed')
  expect(Math.hypot(nearElbow.xMm - near.shoulder.xMm, nearElbow.yMm - near.shoulder.yMm)).toBeCloseTo(
    rider.upperArmMm,
    3,
  )
  expect(Math.hypot(nearElbow.xMm - grip.xMm, nearElbow.yMm - grip.yMm)).toBeCloseTo(rider.forearmToGripMm, 3)
})

test('a limb’s path has no NaN, even with no length', () => {
  expect(limbPath({ xMm: 1, yMm: 1 }, { xMm: 1, yMm: 1 }, 10, 8)).not.toContain('NaN')
})
