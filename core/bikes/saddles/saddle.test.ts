import { dispatch } from '../../operations/dispatch'
import type { Recommendation } from '../../operations/requests/recommend'
import { HOLES_BIKE } from '../../testing/meanRider'
import { contactPoints } from '../bike/contactPoints'
import { assessMachineTilt } from '../bike/tilt'
import { carriedSaddle, saddleOn, widerSaddles, type SaddleModel } from './saddle'

const SLIM: SaddleModel = {
  name: 'Slim',
  widthMm: 140,
  lengthMm: 275,
  noseAheadMm: HOLES_BIKE.saddle.noseAheadMm + 30,
  shape: 'curved',
  relief: 'channel',
  padding: 'firm',
  board: 'highestPoints',
}
const bike = { saddle: carriedSaddle(SLIM, HOLES_BIKE) }

test('a machine’s own saddle moves its nose and leaves seat, grip and the other lengths where they are', () => {
  const at = { seatHeight: 140, seatSlide: 0 }
  const [own, plain] = [contactPoints(HOLES_BIKE, bike, at), contactPoints(HOLES_BIKE, undefined, at)]
  expect(own.nose.xMm - plain.nose.xMm).toBeCloseTo(30, 9)
  expect(own.lengths.setbackMm - plain.lengths.setbackMm).toBeCloseTo(-30, 9)
  expect([own.seat, own.grip, own.lengths.reachMm]).toEqual([plain.seat, plain.grip, plain.lengths.reachMm])
  expect(saddleOn(HOLES_BIKE, bike)).toEqual({ noseAheadMm: SLIM.noseAheadMm, lengthMm: 275, shape: 'curved' })
  expect(saddleOn(HOLES_BIKE, {})).toBe(HOLES_BIKE.saddle)
})

test('tilt is judged by the shape of the saddle on it: nose 4° down is right on a curved one, not on a flat', () => {
  const tilted = { tiltDeg: -4, tiltAcross: 'highestPoints' } as const
  expect(assessMachineTilt({ ...tilted, ...bike }, 'flat', 'byShape')!.outcome).toBe('good')
  expect(assessMachineTilt(tilted, 'flat', 'byShape')!.outcome).toBe('noseDown')
})

test('a longer nose leaves the knees of a standing rider less room before it, and a look there says more', () => {
  const at = { seatHeight: '9', seatSlide: 'D', barHeight: '6', barSlide: '0' }
  const evidence = [
    { kind: 'stature', mm: 1700 },
    { kind: 'kneeAngle', by: 'goniometer', deg: 31, at },
    { kind: 'elbows', seen: 'soft', at },
    { kind: 'clearance', seen: 'clear', at },
  ]
  const ask = (machine: object) =>
    dispatch('recommend', { bikeType: HOLES_BIKE, bike: machine, evidence, samples: 800 }) as Recommendation
  const [own, plain] = [ask(bike), ask({})]
  expect(own.bars.reach.mean).not.toBeCloseTo(plain.bars.reach.mean, 3)
  expect(own.belief.kneeFlexionDeg.mean).toBeCloseTo(plain.belief.kneeFlexionDeg.mean, 0)
})

test('wider ones, the least wider first; none where the width here is unknown', () => {
  const carrying = (number: number, widthMm: number) => ({
    number,
    machineCalibration: { saddle: carriedSaddle({ ...SLIM, widthMm }, HOLES_BIKE) },
  })
  const others = [carrying(3, 180), carrying(4, 155), carrying(5, 146), { number: 6, machineCalibration: {} }]
  expect(widerSaddles(bike, others).map((one) => one.bike.number)).toEqual([4, 3])
  expect(widerSaddles({}, others)).toEqual([])
})
