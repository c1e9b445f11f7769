import { createRng } from '../../base/rng'
import type { BikeType } from '../bike/bike'
import { tapeAt, trueTypeFor } from '../../simulated/simulatedTape'
import { HOLES_BIKE } from '../../testing/meanRider'
import { GUESS, SETTINGS } from '../../testing/tapeSettings'
import { calibrationProgress } from './progress'
import { calibrate } from './calibrate'
import { LENGTHS, type TapeReading } from './readings'
import type { TapeSlip } from './slips'

const tapes = (
  truth: BikeType,
  seed: number,
  slip: (reading: TapeReading) => TapeReading = (r) => r,
): TapeReading[] => {
  const random = createRng(seed)
  return SETTINGS.map((marks) => slip(tapeAt(truth, marks, random, 1.5)))
}
const changed =
  (length: (typeof LENGTHS)[number], change: (mm: number) => number) =>
  (reading: TapeReading): TapeReading => ({
    ...reading,
    lengths: { ...reading.lengths, [length]: change(reading.lengths[length]!) },
  })
const everything =
  (factor: number) =>
  (reading: TapeReading): TapeReading => ({
    ...reading,
    lengths: Object.fromEntries(LENGTHS.map((length) => [length, factor * reading.lengths[length]!])),
  })
/** The bike's labels as printed run the other way round than the guess has them. */
const reversed =
  (axis: 'seatHeight' | 'seatSlide' | 'barHeight') =>
  (reading: TapeReading): TapeReading => {
    const labels = {
      seatHeight: Array.from({ length: 15 }, (_, i) => String(i + 1)),
      seatSlide: [...'ABCDEFG'],
      barHeight: Array.from({ length: 12 }, (_, i) => String(i + 1)),
    }[axis]
    return {
      ...reading,
      marks: { ...reading.marks, [axis]: labels[labels.length - 1 - labels.indexOf(reading.marks[axis]!)] },
    }
  }

const SLIPS: [string, (reading: TapeReading) => TapeReading, TapeSlip][] = [
  ['reach from the nose', changed('reachMm', (mm) => mm - 150), { code: 'reachFromNose' }],
  ['stack from the floor', changed('stackMm', (mm) => mm + 300), { code: 'stackFromFloor' }],
  ['saddle height from the pedal', changed('saddleHeightMm', (mm) => mm + 170), { code: 'heightFromPedal' }],
  ['everything in centimetres', everything(1 / 10), { code: 'centimetres' }],
  ['everything in inches', everything(1 / 25.4), { code: 'inches' }],
  ['seat labels from the other end', reversed('seatHeight'), { code: 'reversedLabels', axis: 'seatHeight' }],
  ['slide labels from the other end', reversed('seatSlide'), { code: 'reversedLabels', axis: 'seatSlide' }],
  ['bar labels from the other end', reversed('barHeight'), { code: 'reversedLabels', axis: 'barHeight' }],
]

test.each(SLIPS)(
  '%s in all readings is never taken for the bike: it is named, whatever the guess was off by',
  (_, slip, named) => {
    for (const seed of [1, 2, 3]) {
      const answer = calibrate(HOLES_BIKE, tapes(trueTypeFor(HOLES_BIKE, GUESS, createRng(seed)), 50 + seed, slip))
      if (answer.outcome === 'fitted') expect(answer.strays.length).toBeGreaterThan(0)
      else expect(answer.reason).toMatch(/^(tooManySuspects|halfSuspect)$/)
      expect(answer.slips).toEqual([named])
    }
  },
)

test('a setback whose sign was turned is named where the nose lies far enough from the axle to detect', () => {
  const back: BikeType = { ...HOLES_BIKE, saddle: { ...HOLES_BIKE.saddle, noseAheadMm: 80 } }
  for (const seed of [1, 2, 3]) {
    const answer = calibrate(
      back,
      tapes(
        trueTypeFor(back, GUESS, createRng(seed)),
        90 + seed,
        changed('setbackMm', (mm) => -mm),
      ),
    )
    expect(answer.slips).toEqual([{ code: 'setbackSign' }])
  }
})

test('somebody who measures everything from the floor and the nose gets both slips reported', () => {
  const both = (reading: TapeReading) =>
    changed('reachMm', (mm) => mm - 150)(changed('stackMm', (mm) => mm + 300)(reading))
  const answer = calibrate(HOLES_BIKE, tapes(trueTypeFor(HOLES_BIKE, GUESS, createRng(3)), 7, both))
  expect(answer.slips?.map((s) => s.code).sort()).toEqual(['reachFromNose', 'stackFromFloor'])
})

test(
  'careful readings beside a guess off by all it may be neither stray nor are explained ' +
    'away, also with one blunder',
  () => {
    for (let seed = 1; seed <= 10; seed++) {
      const readings = tapes(trueTypeFor(HOLES_BIKE, GUESS, createRng(seed)), 200 + seed)
      expect(calibrate(HOLES_BIKE, readings)).toMatchObject({ outcome: 'fitted', strays: [], slips: [] })
      readings[3] = changed('stackMm', (mm) => mm + 60)(readings[3])
      expect(calibrate(HOLES_BIKE, readings)).toMatchObject({ outcome: 'fitted', strays: [], slips: [] })
    }
  },
)

test('a guess that is simply far off is warned of, and no slip is made up for it', () => {
  const far: BikeType = {
    ...HOLES_BIKE,
    gripOrigin: { xMm: HOLES_BIKE.gripOrigin.xMm + 100, yMm: HOLES_BIKE.gripOrigin.yMm },
  }
  const answer = calibrate(HOLES_BIKE, tapes(far, 4))
  expect(answer).toMatchObject({
    outcome: 'fitted',
    strays: [{ code: 'origin', point: 'grip', xMm: expect.closeTo(100, -1) }],
    slips: [],
  })
})

test('a fit that strayed is never done automatically', () => {
  const state = calibrationProgress(
    HOLES_BIKE,
    tapes(
      HOLES_BIKE,
      5,
      changed('reachMm', (mm) => mm - 150),
    ),
  )
  expect(state.fit.outcome).toBe('fitted')
  expect(state.done).toBe(false)
})

test('of one length half the numbers wrong is refused with its name and how many', () => {
  const readings = tapes(HOLES_BIKE, 6).map((reading, i) =>
    i % 2 === 0 ? changed('stackMm', (mm) => mm + 40 + 17 * i)(reading) : reading,
  )
  expect(calibrate(HOLES_BIKE, readings)).toMatchObject({
    outcome: 'refused',
    reason: 'halfSuspect',
    length: 'stackMm',
    of: 9,
  })
})
