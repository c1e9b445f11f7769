import fc from 'fast-check'
import { Matrix, solve } from 'ml-matrix'
import { createRng } from '../../base/rng'
import type { BikeType } from '../bike/bike'
import { axisPositions, contactPoints } from '../bike/contactPoints'
import { tapeAt, trueTypeFor } from '../../simulated/simulatedTape'
import { HOLES_BIKE } from '../../testing/meanRider'
import { GUESS, SETTINGS } from '../../testing/tapeSettings'
import { calibrate, fitReadings, OUTLIER_MM, type Fitted } from './calibrate'
import { designGrid, sameGeometry } from './predictionError'
import { lengthAt, initialParameters } from './parameters'
import { LENGTHS, observationsOf, reachFromNose, setbackFromWall, type TapeReading } from './readings'

const readingsOf = (truth: BikeType, seed = 1, sdMm = 0): TapeReading[] => {
  const random = createRng(seed)
  return SETTINGS.map((marks) => tapeAt(truth, marks, random, sdMm))
}
const worst = (a: BikeType, b: BikeType) =>
  Math.max(
    ...SETTINGS.flatMap((marks) =>
      LENGTHS.map((l) =>
        Math.abs(
          contactPoints(a, undefined, axisPositions(a, marks)).lengths[l] -
            contactPoints(b, undefined, axisPositions(b, marks)).lengths[l],
        ),
      ),
    ),
  )
const fitted = (readings: TapeReading[], guess: BikeType = HOLES_BIKE): Fitted => {
  const answer = calibrate(guess, readings)
  if (answer.outcome === 'refused') throw new Error(answer.reason)
  return answer
}

test(
  'calibrate ∘ place recovers the geometry: exact readings of a bike give that bike back, ' + 'labels from the guess',
  () => {
    fc.assert(
      fc.property(fc.integer(), (seed) => {
        const truth = trueTypeFor(HOLES_BIKE, GUESS, createRng(seed))
        const answer = fitted(readingsOf(truth))
        expect(worst(answer.bikeType, truth)).toBeLessThan(1)
        expect(answer.suspects).toEqual([])
        expect(answer.bikeType.axes.seatHeight.directionDeg).toBeCloseTo(truth.axes.seatHeight.directionDeg, 0)
      }),
      { numRuns: 25 },
    )
  },
)

test('a right guess and exact readings change nothing', () => {
  const answer = fitted(readingsOf(HOLES_BIKE))
  expect(worst(answer.bikeType, HOLES_BIKE)).toBeLessThan(1e-6)
  expect(answer.rmsMm).toBeLessThan(1e-6)
})

test(
  'stack alone is straight-line regression: the textbook’s least squares, with the guess ' +
    'as a faint pull (checked against ml-matrix’s solver)',
  () => {
    const upright: BikeType = {
      ...HOLES_BIKE,
      axes: { ...HOLES_BIKE.axes, barHeight: { ...HOLES_BIKE.axes.barHeight, directionDeg: 90 } },
    }
    const read = [601, 643, 700, 742, 799, 822]
    const marks = ['1', '3', '6', '8', '11', '12']
    const answer = fitted(
      marks.map((barHeight, i) => ({ marks: { barHeight }, lengths: { stackMm: read[i] } })),
      upright,
    )
    const along = marks.map((m) => 20 * (Number(m) - 1))
    const [[origin], [spacing]] = solve(new Matrix(along.map((mm) => [1, mm])), Matrix.columnVector(read)).to2DArray()
    along.forEach((mm, i) => expect(answer.residues[i].mm).toBeCloseTo(read[i] - (origin + spacing * mm), 0))
  },
)

test('a blunder of 25 mm is named, left out, and does no harm; residues keep it with its size', () => {
  const truth = trueTypeFor(HOLES_BIKE, GUESS, createRng(7))
  const readings = readingsOf(truth, 3, 1.5)
  readings[4] = { ...readings[4], lengths: { ...readings[4].lengths, stackMm: readings[4].lengths.stackMm! - 25 } }
  const answer = fitted(readings)
  expect(answer.suspects).toMatchObject([{ reading: 4, length: 'stackMm' }])
  expect(answer.residues.find((r) => r.reading === 4 && r.length === 'stackMm')!.mm).toBeLessThan(-20)
  expect(worst(answer.bikeType, truth)).toBeLessThan(5)
})

test('a reading taken at the next hole is stated to be just that', () => {
  const readings = readingsOf(HOLES_BIKE)
  const other = contactPoints(
    HOLES_BIKE,
    undefined,
    axisPositions(HOLES_BIKE, { ...SETTINGS[4], seatHeight: '9' }),
  ).lengths
  readings[4] = { ...readings[4], lengths: { ...readings[4].lengths, saddleHeightMm: other.saddleHeightMm } }
  expect(fitted(readings).suspects).toMatchObject([
    { reading: 4, length: 'saddleHeightMm', reason: { code: 'otherMark', axis: 'seatHeight', label: '9' } },
  ])
})

test.each([
  ['centimetres written for millimetres', (mm: number) => mm / 10, 'tenfold'],
  ['inches', (mm: number) => mm / 25.4, 'inches'],
  ['half a hundred of the tape slipped', (mm: number) => mm + 50.4, 'roundCentimetres'],
])('%s is guessed as the cause', (_, slip, code) => {
  const readings = readingsOf(HOLES_BIKE)
  readings[8] = { ...readings[8], lengths: { ...readings[8].lengths, reachMm: slip(readings[8].lengths.reachMm!) } }
  expect(fitted(readings).suspects).toMatchObject([{ reading: 8, length: 'reachMm', reason: { code } }])
})

test('one mark only is refused with its axis and mark; nothing read and a tape that fits nothing too', () => {
  const readings = readingsOf(HOLES_BIKE).map((r) => ({ ...r, marks: { ...r.marks, barSlide: '0' } }))
  expect(calibrate(HOLES_BIKE, readings)).toEqual({
    outcome: 'refused',
    reason: 'tooFewMarks',
    axis: 'barSlide',
    label: '0',
  })
  expect(calibrate(HOLES_BIKE, readings.slice(0, 1))).toMatchObject({
    outcome: 'refused',
    reason: 'tooFewMarks',
    axis: 'seatHeight',
  })
  expect(calibrate(HOLES_BIKE, [])).toEqual({ outcome: 'refused', reason: 'noReadings' })
  const random = createRng(5)
  const wild = readingsOf(HOLES_BIKE).map((r) => ({
    ...r,
    lengths: Object.fromEntries(LENGTHS.map((l) => [l, 400 + 400 * random.uniform()])),
  }))
  expect(calibrate(HOLES_BIKE, wild)).toMatchObject({
    outcome: 'refused',
    reason: expect.stringMatching(/^(tooManySuspects|halfSuspect)$/),
    slips: [],
  })
})

test('a part that closes at one place only is no reason to refuse', () => {
  const fixed: BikeType = {
    ...HOLES_BIKE,
    axes: {
      ...HOLES_BIKE.axes,
      barSlide: { directionDeg: 0, scale: { marks: [{ label: 'fixed', mm: 0 }], halfMarks: false } },
    },
  }
  const random = createRng(2)
  const readings = SETTINGS.map((marks) => tapeAt(fixed, { ...marks, barSlide: 'fixed' }, random, 1))
  expect(calibrate(fixed, readings).outcome).toBe('fitted')
})

test('an axis nobody named stays as guessed, and is known no better than a guess', () => {
  const seatOnly = readingsOf(HOLES_BIKE).map(({ marks, lengths }) => ({
    marks: { seatHeight: marks.seatHeight, seatSlide: marks.seatSlide },
    lengths: { saddleHeightMm: lengths.saddleHeightMm, setbackMm: lengths.setbackMm },
  }))
  const answer = fitted(seatOnly)
  expect(answer.bikeType.axes.barHeight).toEqual(HOLES_BIKE.axes.barHeight)
  expect(answer.sdMm.barHeight).toBeGreaterThan(10)
  expect(answer.sdMm.seatHeight).toBeLessThan(2)
})

test('the slope of every length is what moving each parameter a little does', () => {
  const p = initialParameters(HOLES_BIKE)
  const positions = designGrid(HOLES_BIKE)[13]
  for (const length of LENGTHS) {
    const { by } = lengthAt(HOLES_BIKE, p, positions, length)
    by.forEach((slope, i) => {
      const moved = (step: number) =>
        lengthAt(
          HOLES_BIKE,
          p.map((v, j) => (j === i ? v + step : v)),
          positions,
          length,
        ).mm
      expect(slope).toBeCloseTo((moved(1e-5) - moved(-1e-5)) / 2e-5, 4)
    })
  }
})

/**
 * Over many tapes of a hand of this spread: the share of true errors within two stated ones, and of tapes with a
 * suspect.
 */
function statedAgainstTrue(tapes: number, sdMm: number): { inside: number; named: number } {
  let inside = 0
  let all = 0
  let named = 0
  for (let seed = 0; seed < tapes; seed++) {
    const truth = trueTypeFor(HOLES_BIKE, GUESS, createRng(seed))
    const answer = fitted(readingsOf(truth, 1000 * sdMm + seed, sdMm))
    if (answer.suspects.length > 0) named++
    for (const marks of SETTINGS) {
      const [found, there] = [answer.bikeType, truth].map(
        (type) => contactPoints(type, undefined, axisPositions(type, marks)).lengths,
      )
      for (const length of LENGTHS) {
        if (Math.abs(found[length] - there[length]) <= 2 * answer.expectedErrorMm[length]) inside++
        all++
      }
    }
  }
  return { inside: inside / all, named: named / tapes }
}

test(
  'stated errors hold: of true errors over many tapes about 95 % lie within two stated ' +
    'ones, as of any normal error',
  () => {
    const { inside } = statedAgainstTrue(30, 1.5)
    expect(inside).toBeGreaterThan(0.92)
    expect(inside).toBeLessThan(0.995)
    expect(OUTLIER_MM).toBe(6)
  },
)

test(
  'the tape against the wall and at the nose (common practice, no source): 900 to the axle ' +
    'and 845 to the nose is 55 behind',
  () => {
    expect(setbackFromWall(900, 845)).toBe(55)
    expect(setbackFromWall(845, 900)).toBe(-55)
    expect(reachFromNose(480, 150)).toBe(630)
    expect(
      observationsOf([{ marks: { seatHeight: '1' }, lengths: { stackMm: 1, saddleHeightMm: 2 } }]).map((o) => o.length),
    ).toEqual(['saddleHeightMm', 'stackMm'])
  },
)

test('two types are the same to a tape where no mark differs by a tenth of a millimetre', () => {
  const shifted = (mm: number): BikeType => ({
    ...HOLES_BIKE,
    gripOrigin: { ...HOLES_BIKE.gripOrigin, yMm: HOLES_BIKE.gripOrigin.yMm + mm },
  })
  expect(sameGeometry(HOLES_BIKE, shifted(0.01))).toBe(true)
  expect(sameGeometry(HOLES_BIKE, shifted(2))).toBe(false)
  expect(sameGeometry(HOLES_BIKE, { ...HOLES_BIKE, axes: { ...HOLES_BIKE.axes, barSlide: undefined } })).toBe(false)
  const relabelled = {
    ...HOLES_BIKE,
    axes: {
      ...HOLES_BIKE.axes,
      seatSlide: {
        directionDeg: 0,
        scale: { marks: [...'TUVWXYZ'].map((label, i) => ({ label, mm: 10 * (i - 3) })), halfMarks: false },
      },
    },
  }
  expect(sameGeometry(HOLES_BIKE, relabelled)).toBe(false)
})

test('a rougher tape (3 mm) is believed to be rough: stated errors still hold, and innocents are rarely named', () => {
  const { inside, named } = statedAgainstTrue(60, 3)
  expect(inside).toBeGreaterThan(0.9)
  expect(named).toBeLessThan(1 / 3)
})

test('with three or four readings a good one is never blamed alone: both that disagree are named', () => {
  let [blamed, alone, open] = [0, 0, 0]
  for (let seed = 1; seed <= 20; seed++)
    for (const count of [3, 4])
      for (let bad = 0; bad < count; bad++) {
        const truth = trueTypeFor(HOLES_BIKE, GUESS, createRng(seed))
        const readings = [...readingsOf(truth, seed, 1).slice(0, 2), ...readingsOf(truth, seed, 1).slice(-2)].slice(
          0,
          count,
        )
        readings[bad] = {
          ...readings[bad],
          lengths: { ...readings[bad].lengths, saddleHeightMm: readings[bad].lengths.saddleHeightMm! + 30 },
        }
        const answer = fitReadings(HOLES_BIKE, observationsOf(readings))
        if (answer.outcome !== 'fitted') continue
        for (const { reading, orReading } of answer.suspects) {
          blamed += 1
          if (reading !== bad && orReading === undefined) alone += 1
          if (orReading !== undefined) open += 1
        }
      }
  expect(blamed).toBeGreaterThan(20)
  expect(open).toBeGreaterThan(5)
  expect(alone / blamed).toBeLessThan(0.05)
})
