import fc from 'fast-check'
import { distanceMm } from '../../base/geometry'
import { contactAt, CRANK, meanRider } from '../../testing/meanRider'
import { FRACTION_OF_STATURE as F } from '../rider/anthropometry'
import { poseAt, type Posed, type UnreachablePose } from './pose'

const BOTTOM = 163

function posed(statureMm: number, saddleHeightMm: number, crankDeg: number, pitchDeg = 15): Posed {
  const pose = poseAt(meanRider(statureMm, pitchDeg), contactAt(saddleHeightMm), CRANK, crankDeg)
  if (pose.outcome !== 'posed') throw new Error(`unreachable by ${pose.missingMm}`)
  return pose
}

/** Saddle height at which the knee is flexed by `deg`, found by halving. */
function heightFor(deg: number, statureMm: number, pitchDeg = 15): number {
  let [low, high] = [400, 1100]
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2
    const pose = poseAt(meanRider(statureMm, pitchDeg), contactAt(middle), CRANK, BOTTOM)
    if (pose.outcome === 'posed' && pose.kneeFlexionDeg > deg) low = middle
    else high = middle
  }
  return low
}

/**
 * Hip to the pedal's farthest axle, along the straight line to the seat point: what "to the pedal axle" means on a
 * tape.
 */
const toPedal = (saddleHeightMm: number) => saddleHeightMm + CRANK.crankMm

describe('the sanity values of the trade notes, mean rider of 1700 mm', () => {
  test.each([
    [700, 39.1, 114.6],
    [715, 32.5, 112.1],
    [730, 24.1, 109.6],
  ])('saddle height %i mm: knee %f° at the bottom, %f° at the top', (height, bottom, top) => {
    expect(Math.abs(posed(1700, height, BOTTOM).kneeFlexionDeg - bottom)).toBeLessThan(0.06)
    expect(Math.abs(posed(1700, height, 0).kneeFlexionDeg - top)).toBeLessThan(0.06)
  })

  test.each([
    [0, 697],
    [5, 706],
    [10, 713],
    [15, 720],
    [20, 725],
  ])('a foot pitched by %i° needs %i mm for 30°', (pitch, height) => {
    expect(Math.abs(heightFor(30, 1700, pitch) - height)).toBeLessThan(0.6)
  })

  test.each([
    [620, 64.7, 64.8, 84.1],
    [660, 61.4, 69.8, 80.9],
    [700, 58.1, 75.0, 77.6],
  ])('reach %i mm: trunk %f°, trunk to arm %f°, hip at the top %f°', (reach, trunk, arm, hip) => {
    const pose = poseAt(meanRider(1700), contactAt(715, reach), CRANK, 0) as Posed
    expect(Math.abs(pose.trunkAngleDeg - trunk)).toBeLessThan(0.06)
    expect(Math.abs(pose.shoulderAngleDeg - arm)).toBeLessThan(0.06)
    expect(Math.abs(pose.hipAngleDeg - hip)).toBeLessThan(0.06)
  })

  test('a millimetre of saddle is worth 1.4 per degree near 20°, 2 near 30°, 2.4 near 40°', () => {
    const perDegree = (deg: number) => heightFor(deg - 0.5, 1700) - heightFor(deg + 0.5, 1700)
    // The notes round and say "near": held to 0.2 mm.
    for (const [deg, mm] of [
      [20, 1.4],
      [30, 2.0],
      [40, 2.4],
    ] as const)
      expect(Math.abs(perDegree(deg) - mm)).toBeLessThan(0.2)
  })
})

describe('published rules (sources recalled from memory)', () => {
  const inseam = (statureMm: number) => F.inseam * statureMm

  test.each([
    [1550, 30.6],
    [1650, 29.0],
    [1750, 27.5],
    [1850, 26.0],
    [1950, 24.7],
  ])(
    '109 %% of inseam to the pedal axle (Hamley & Thomas 1967) puts the mean rider of %i mm at %f°',
    (stature, deg) => {
      const height = 1.09 * inseam(stature) - CRANK.crankMm
      expect(Math.abs(posed(stature, height, BOTTOM).kneeFlexionDeg - deg)).toBeLessThan(0.2)
    },
  )

  test.each([
    [1550, 20.1],
    [1650, 25.8],
    [1750, 29.9],
    [1850, 33.2],
    [1950, 35.9],
  ])(
    '0.883 of inseam to the crank axle puts the mean rider of %i mm at %f° (common practice, no source)',
    (stature, deg) => {
      expect(Math.abs(posed(stature, 0.883 * inseam(stature), BOTTOM).kneeFlexionDeg - deg)).toBeLessThan(0.2)
    },
  )

  test('109 % lands within 5° of 25–35° (Holmes, Pruitt & Whalen 1994) for mean riders of 1500 to 2000 mm', () => {
    for (let stature = 1500; stature <= 2000; stature += 50) {
      const { kneeFlexionDeg } = posed(stature, 1.09 * inseam(stature) - CRANK.crankMm, BOTTOM)
      expect(kneeFlexionDeg).toBeGreaterThan(20)
      expect(kneeFlexionDeg).toBeLessThan(40)
    }
  })

  test(
    '25–40° lie 5–30 mm below 22.1 + 0.896·inseam − 0.15·flexion cm (Ferrer-Roca and ' +
      'co-workers, 2012–2014), a rule of moving riders',
    () => {
      for (const deg of [25, 30, 35, 40]) {
        const published = 10 * (22.1 + (0.896 * inseam(1700)) / 10 - 0.15 * deg)
        const below = published - toPedal(heightFor(deg, 1700))
        expect(below).toBeGreaterThan(5)
        expect(below).toBeLessThan(30)
      }
    },
  )

  test('segment fractions add up to the trochanter (Drillis & Contini 1966; Winter)', () => {
    expect(F.thigh + F.shank + F.ankleHeight).toBeCloseTo(F.trochanterHeight, 10)
    expect(F.shoulderHeight - F.trochanterHeight).toBeCloseTo(F.trunk, 10)
  })

  test.each([
    [1550, 645, 1.091],
    [1700, 720, 1.086],
    [1850, 794, 1.081],
    [1950, 844, 1.079],
  ])('30° for %i mm needs %i mm, %f times the inseam to the pedal axle', (stature, height, factor) => {
    expect(Math.abs(heightFor(30, stature) - height)).toBeLessThan(0.6)
    expect(Math.abs(toPedal(heightFor(30, stature)) / inseam(stature) - factor)).toBeLessThan(0.001)
  })
})

/**
 * The triangle with sides 13, 14, 15 (Heron, Metrica I, 5 and 8; its angles 53.13°, 59.49° and 67.38° stand in every
 * table of Heronian triangles; from memory). As a leg it has its thigh 13, its shank 14 and hip to ankle 15 parts
 * long: the knee's inner angle lies opposite the 15, so that it is flexed by 180° − 67.38°.
 */
test('a worked example: thigh 390, shank 420, hip to ankle 450 mm is a knee flexed by 112.62°', () => {
  const rider = {
    ...meanRider(1700, 0),
    thighMm: 390,
    shankMm: 420,
    ankleHeightMm: 60,
    ankleToBallMm: 120,
    soleMm: 10,
    hipAboveSeatMm: 50,
    patellaAheadMm: 0,
  }
  // At the bottom the pedal axle lies at (0, −170); the ankle 120 mm behind and 60 + 10 + 14 mm above it.
  const ankle = { xMm: -120, yMm: -170 + 84 }
  const seat = { xMm: ankle.xMm, yMm: ankle.yMm + 450 - 50 }
  const pose = poseAt(rider, { seat, grip: { xMm: seat.xMm + 600, yMm: seat.yMm + 50 } }, CRANK, 180) as Posed
  expect(distanceMm(pose.hip, pose.ankle)).toBeCloseTo(450, 9)
  expect(pose.kneeFlexionDeg).toBeCloseTo(180 - 67.38, 2)
  // The other two angles of the table, at hip and ankle, with the shank's foot on the line from hip to ankle.
  const kneeAheadMm = pose.knee.xMm - pose.hip.xMm
  expect(Math.asin(kneeAheadMm / 390) * (180 / Math.PI)).toBeCloseTo(59.49, 2)
  expect(Math.asin(kneeAheadMm / 420) * (180 / Math.PI)).toBeCloseTo(53.13, 2)
})

describe('laws of the linkage', () => {
  const stature = fc.double({ min: 1450, max: 2050, noNaN: true })
  const crank = fc.double({ min: 0, max: 360, noNaN: true })

  test('segments keep their lengths in every pose', () => {
    fc.assert(
      fc.property(stature, crank, fc.double({ min: 0.38, max: 0.43, noNaN: true }), (h, c, share) => {
        const rider = meanRider(h)
        const contact = contactAt(share * h)
        const pose = poseAt(rider, contact, CRANK, c)
        fc.pre(pose.outcome === 'posed')
        if (pose.outcome !== 'posed') throw new Error('held by the precondition')
        expect(distanceMm(pose.hip, pose.knee)).toBeCloseTo(rider.thighMm, 6)
        expect(distanceMm(pose.knee, pose.ankle)).toBeCloseTo(rider.shankMm, 6)
        expect(distanceMm(pose.hip, pose.shoulder)).toBeCloseTo(rider.trunkMm, 6)
        expect(distanceMm({ xMm: 0, yMm: 0 }, pose.pedal)).toBeCloseTo(CRANK.crankMm, 6)
      }),
    )
  })

  test('a higher saddle straightens the knee, at every crank angle near the bottom', () => {
    fc.assert(
      fc.property(stature, fc.double({ min: 140, max: 190, noNaN: true }), (h, c) => {
        const low = poseAt(meanRider(h), contactAt(0.4 * h), CRANK, c)
        const high = poseAt(meanRider(h), contactAt(0.4 * h + 8), CRANK, c)
        fc.pre(low.outcome === 'posed' && high.outcome === 'posed')
        expect((high as Posed).kneeFlexionDeg).toBeLessThan((low as Posed).kneeFlexionDeg)
      }),
    )
  })

  test('pitch through top, forward and bottom meets all three', () => {
    const rider = { ...meanRider(1700), footPitchDeg: { top: 15, forward: 5, bottom: 12 } }
    for (const [c, pitch] of [
      [0, 15],
      [90, 5],
      [180, 12],
    ] as const) {
      const varied = poseAt(rider, contactAt(700), CRANK, c) as Posed
      const fixed = poseAt({ ...rider, footPitchDeg: pitch }, contactAt(700), CRANK, c) as Posed
      expect(varied.kneeFlexionDeg).toBeCloseTo(fixed.kneeFlexionDeg, 9)
    }
  })
})

describe('who cannot reach', () => {
  test('a short rider on a high saddle misses the pedal by the millimetres stated', () => {
    const pose = poseAt(meanRider(1450), contactAt(760), CRANK, BOTTOM)
    expect(pose).toMatchObject({ outcome: 'unreachable', limb: 'leg' })
    const { missingMm } = pose as UnreachablePose
    const lower = poseAt(meanRider(1450), contactAt(760 - missingMm - 3), CRANK, BOTTOM)
    expect(lower.outcome).toBe('posed')
  })

  test('bars beyond the arm: the arm is named, the leg having been looked at first', () => {
    const pose = poseAt(meanRider(1700), contactAt(700, 1200), CRANK, BOTTOM)
    expect(pose).toMatchObject({ outcome: 'unreachable', limb: 'arm' })
    expect(poseAt(meanRider(1450), contactAt(900, 1200), CRANK, BOTTOM)).toMatchObject({ limb: 'leg' })
  })
})
