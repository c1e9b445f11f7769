import { bottomCrankDeg } from '../../../bikes/bike/bike'
import type { Point } from '../../../base/conventions'
import { gaussian } from '../../../riders/inference/likelihood'
import { samplePosterior, type Posterior } from '../../../riders/inference/posterior'
import { poseAt } from '../../../riders/kinematics/pose'
import { nearestPosition, positionsOf, type ScalePosition } from '../../../bikes/scale/scale'
import { inWindow, PLUMB_WINDOW_MM, schoolOf, type School } from '../../../base/school/school'
import { HOLES_BIKE } from '../../../testing/meanRider'
import { holesInputs } from '../../../testing/modelInputs'
import {
  bestPosition,
  heightEnd,
  legEffectMm,
  READING_TOLERANCE,
  saddlePositionAt,
  seatAt,
  slideEnd,
  startPosition,
  type SaddleSearch,
} from './saddleSearch'
import { targetProbabilities } from './targetProbabilities'

const inputs = holesInputs()
const posteriorOf = (statureMm: number, count = 2000): Posterior =>
  samplePosterior(inputs, [gaussian(statureMm, 10, ({ body }) => body.statureMm)], 1, count)
const searchIn = (posterior: Posterior, school: Partial<School> = {}): SaddleSearch => ({
  bikeType: HOLES_BIKE,
  school: schoolOf(school),
  targets: targetProbabilities(posterior, schoolOf(school)),
  tolerant: targetProbabilities(posterior, schoolOf(school), false, READING_TOLERANCE),
  slideMm: 0,
})
const search = (statureMm: number, school: Partial<School> = {}): SaddleSearch =>
  searchIn(posteriorOf(statureMm), school)
const heights = positionsOf(HOLES_BIKE.axes.seatHeight.scale)
const middle = nearestPosition(HOLES_BIKE.axes.seatSlide.scale, 0)
const at = (q: SaddleSearch, height: ScalePosition) => seatAt(q, height, middle)

test('at every mark a rider’s knee is right, too low or too high: the three chances sum to 1', () => {
  for (const school of [
    {},
    { heelCheck: 'target' },
    { heelCheck: 'ceiling' },
    { kneeWindowDeg: [30, 35] as const },
  ] as Partial<School>[]) {
    const q = search(1700, school)
    for (const height of heights) {
      const seat = at(q, height)
      expect(q.targets.kneeChance(seat) + q.targets.tooLowChance(seat) + q.targets.tooHighChance(seat)).toBeCloseTo(
        1,
        9,
      )
    }
  }
})

test('the higher the seat, the straighter the knee, the fewer sit too low', () => {
  const q = search(1700)
  const seats = heights.map((height) => at(q, height))
  seats.slice(1).forEach((seat, i) => {
    expect(q.targets.knee(seat).mean).toBeLessThanOrEqual(q.targets.knee(seats[i]).mean)
    expect(q.targets.tooLowChance(seat)).toBeLessThanOrEqual(q.targets.tooLowChance(seats[i]))
    expect(q.targets.tooHighChance(seat)).toBeGreaterThanOrEqual(q.targets.tooHighChance(seats[i]))
  })
})

test('both checks together are never likelier than either', () => {
  const q = search(1700)
  const seat = at(q, heights[8])
  expect(q.targets.bothChance(seat)).toBeLessThanOrEqual(
    Math.min(q.targets.kneeChance(seat), q.targets.plumbChance(seat)),
  )
})

const slides = positionsOf(HOLES_BIKE.axes.seatSlide.scale)
const everyPair = (q: SaddleSearch) =>
  heights.flatMap((height) => slides.map((slide) => saddlePositionAt(q, height, slide)))

/**
 * The share of the posterior's riders whose knee and plumb line both lie in their windows at a seat, told by posing
 * every one of them: another way than the search goes, which compares distances.
 */
function shareInWindows(posterior: Posterior, seat: Point): number {
  const { body, count } = posterior.particles
  const crank = { crankMm: HOLES_BIKE.crankMm, pedalSurfaceMm: HOLES_BIKE.pedalSurfaceMm }
  const { kneeWindowDeg } = schoolOf()
  let sum = 0
  for (let i = 0; i < count; i++) {
    const part = (name: keyof typeof body) => (body[name] as Float64Array)[i]
    const rider = {
      thighMm: part('thighMm'),
      shankMm: part('shankMm'),
      ankleHeightMm: part('ankleHeightMm'),
      ankleToBallMm: part('ankleToBallMm'),
      soleMm: 10,
      hipAboveSeatMm: part('hipAboveSeatMm'),
      patellaAheadMm: part('patellaAheadMm'),
      trunkMm: 500,
      upperArmMm: 300,
      forearmToGripMm: 300,
      elbowFlexionDeg: 20,
    }
    const grip = { xMm: seat.xMm + 620, yMm: seat.yMm + 60 }
    const pose = (deg: number, footPitchDeg: number) => poseAt({ ...rider, footPitchDeg }, { seat, grip }, crank, deg)
    const bottom = pose(bottomCrankDeg(HOLES_BIKE), part('bottomPitchDeg'))
    const level = pose(90, part('forwardPitchDeg'))
    if (bottom.outcome !== 'posed' || level.outcome !== 'posed') continue
    const both =
      inWindow(bottom.kneeFlexionDeg, kneeWindowDeg) &&
      inWindow(level.plumbOffsetMm, PLUMB_WINDOW_MM[schoolOf().foreAft])
    if (both) sum += posterior.weights[i]
  }
  return sum
}

test(
  'the start is as good as the best of all heights and slides, every rider posed at each; ' +
    'of ties the slide nearest 0 mm',
  () => {
    for (const stature of [1550, 1700, 1850]) {
      const posterior = posteriorOf(stature, 400)
      const q = searchIn(posterior)
      const all = everyPair(q).map((p) => ({ ...p, posed: shareInWindows(posterior, p.seat) }))
      const top = Math.max(...all.map((p) => p.posed))
      const start = startPosition(q, middle)
      const posed = shareInWindows(posterior, start.seat)
      expect(posed).toBeCloseTo(start.chance, 9)
      expect(posed).toBeGreaterThanOrEqual(top - 0.02)
      const nearer = all.filter((p) => p.posed >= top - 0.02 && Math.abs(p.slide.mm) < Math.abs(start.slide.mm))
      expect(nearer.map((p) => [p.height.label, p.slide.label])).toEqual([])
    }
  },
)

test.each<[string, Partial<School>]>([
  ['a wide window', {}],
  ['a narrow window', { kneeWindowDeg: [30, 35] }],
  ['the heel as target', { heelCheck: 'target' }],
  ['the heel as ceiling', { heelCheck: 'ceiling' }],
])('no pair passed over is better than the best one looked at: %s', (_, school) => {
  for (const stature of [1450, 1600, 1750, 1900, 2050]) {
    const q = search(stature, school)
    const top = Math.max(...everyPair(q).map((p) => p.chance))
    expect(bestPosition(q, saddlePositionAt(q, heights[0], slides[0])).chance).toBeGreaterThanOrEqual(top - 0.03)
  }
})

test(
  'on two rulers of 400 fine steps a few thousand places are looked at, not 160,000, and ' + 'none is much better',
  () => {
    const ruler = (mmPerUnit: number, mmAtZero: number) => ({
      ruler: { min: 0, max: 399, resolution: 1, mmPerUnit, mmAtZero },
    })
    const { axes } = HOLES_BIKE
    const bikeType = {
      ...HOLES_BIKE,
      axes: {
        ...axes,
        seatHeight: { directionDeg: 107, scale: ruler(1, 0) },
        seatSlide: { directionDeg: 0, scale: ruler(0.2, -40) },
      },
    }
    const coarse = search(1700)
    let looks = 0
    const bothChance: SaddleSearch['targets']['bothChance'] = (seat) => {
      looks++
      return coarse.targets.bothChance(seat)
    }
    const fine: SaddleSearch = { ...coarse, bikeType, targets: { ...coarse.targets, bothChance } }
    const start = startPosition(fine, { label: '200', mm: 0 })
    expect(looks).toBeLessThan(5000)
    expect(start.chance).toBeGreaterThanOrEqual(Math.max(...everyPair(coarse).map((p) => p.chance)) - 0.02)
  },
)

test(
  'a change goes to where both checks together are likeliest, not to the best knee beside ' +
    'a slide judged at the old height',
  () => {
    const q = search(1700)
    for (const [height, slide] of [
      [heights[4], slides[6]],
      [heights[12], slides[0]],
      [heights[9], slides[5]],
    ]) {
      const current = saddlePositionAt(q, height, slide)
      const top = Math.max(...everyPair(q).map((p) => p.chance))
      expect(bestPosition(q, current).chance).toBeGreaterThanOrEqual(top - 0.03)
    }
  },
)

test('the best pair stays; a pair only a sampling error better is not worth moving for', () => {
  const q = search(1700)
  const again = bestPosition(q, startPosition(q, middle))
  expect(bestPosition(q, again)).toBe(again)
})

test(
  'a slide moves the seat for the leg as a third of a height does (common practice 3:1), ' +
    'forward lower, with its sign',
  () => {
    const q = search(1700)
    const from = seatAt(q, heights[8], middle)
    const forward = legEffectMm(q, from, seatAt(q, heights[8], { label: '', mm: middle.mm + 30 }))
    expect(forward).toBeLessThan(-6)
    expect(forward).toBeGreaterThan(-13)
    expect(legEffectMm(q, from, seatAt(q, heights[9], middle))).toBeCloseTo(20, 0)
    expect(legEffectMm(q, from, seatAt(q, heights[7], middle))).toBeCloseTo(-20, 0)
  },
)

test('the post ends where no mark is high or low enough for most; in between it has not ended', () => {
  const end = (statureMm: number) => {
    const q = search(statureMm)
    return heightEnd(q, startPosition(q, middle))
  }
  expect(end(1700)).toBeNull()
  expect(end(2150)).toMatchObject({ axis: 'seatHeight', end: 'top', nearest: { label: '15' } })
  expect(end(2150)!.wantedMm).toBeGreaterThan(280)
  expect(end(1150)).toMatchObject({ end: 'bottom', nearest: { label: '1' } })
  expect(end(1150)!.wantedMm).toBeLessThan(0)
})

test(
  'the slide ends where at every height that suits the knee it still hangs too far ahead, ' + 'or behind, for most',
  () => {
    const onSlide = (mm: number): SaddleSearch => {
      const marks = [
        { label: 'A', mm },
        { label: 'B', mm: mm + 10 },
      ]
      const bikeType = {
        ...HOLES_BIKE,
        axes: { ...HOLES_BIKE.axes, seatSlide: { directionDeg: 0, scale: { marks, halfMarks: false } } },
      }
      return { ...search(1700), bikeType }
    }
    const end = (mm: number) => {
      const q = onSlide(mm)
      return slideEnd(q, startPosition(q, positionsOf(q.bikeType.axes.seatSlide.scale)[0]))
    }
    expect(end(0)).toBeNull()
    expect(end(60)).toMatchObject({ axis: 'seatSlide', end: 'rear', nearest: { label: 'A' } })
    expect(end(60)!.wantedMm).toBeLessThan(60)
    expect(end(-80)).toMatchObject({ axis: 'seatSlide', end: 'front', nearest: { label: 'B' } })
    expect(end(-80)!.wantedMm).toBeGreaterThan(-70)
  },
)
