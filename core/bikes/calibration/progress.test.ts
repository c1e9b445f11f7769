import { createRng } from '../../base/rng'
import { tapeAt, trueTypeFor } from '../../simulated/simulatedTape'
import { HOLES_BIKE } from '../../testing/meanRider'
import { calibrationProgress, checkPlausibility, SUFFICIENT_SD_MM } from './progress'
import { LENGTHS, type TapeReading } from './readings'

const truth = trueTypeFor(HOLES_BIKE, { originMm: 15, directionDeg: 2, spacingShare: 0.04 }, createRng(8))

test(
  'followed as it proposes, it finishes by itself within ten settings, every length under ' +
    '3 mm, and not before six',
  () => {
    const random = createRng(21)
    const readings: TapeReading[] = []
    while (!calibrationProgress(HOLES_BIKE, readings).done && readings.length < 12)
      readings.push(tapeAt(truth, calibrationProgress(HOLES_BIKE, readings).next.marks, random, 1.5))
    expect(readings.length).toBeGreaterThanOrEqual(6)
    expect(readings.length).toBeLessThanOrEqual(10)
    const { fit } = calibrationProgress(HOLES_BIKE, readings)
    for (const length of LENGTHS)
      expect(fit.outcome === 'fitted' && fit.expectedErrorMm[length]).toBeLessThan(SUFFICIENT_SD_MM)
  },
)

test('a suspect left in holds it open; taken back it closes', () => {
  const random = createRng(5)
  const readings: TapeReading[] = []
  for (let k = 0; k < 8; k++)
    readings.push(tapeAt(truth, calibrationProgress(HOLES_BIKE, readings).next.marks, random, 1))
  const slipped = readings.map((r, i) =>
    i === 3 ? { ...r, lengths: { ...r.lengths, reachMm: r.lengths.reachMm! + 25 } } : r,
  )
  expect(calibrationProgress(HOLES_BIKE, slipped).done).toBe(false)
  expect(
    calibrationProgress(
      HOLES_BIKE,
      slipped.filter((_, i) => i !== 3),
    ).done,
  ).toBe(true)
})

test('the fit is shown from the first reading on; one mark alone blocks it', () => {
  const first = calibrationProgress(HOLES_BIKE, [
    tapeAt(HOLES_BIKE, { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0' }, createRng(1), 1),
  ])
  expect(first.fit.outcome).toBe('fitted')
  expect(first.blocked).toMatchObject({ reason: 'tooFewMarks', axis: 'seatHeight', label: '8' })
  expect(calibrationProgress(HOLES_BIKE, []).blocked).toMatchObject({ reason: 'noReadings' })
})

test('what looks like a slip is questioned before it is stored; what fits is not', () => {
  const marks = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0' }
  const ask = (lengths: TapeReading['lengths']) => checkPlausibility(HOLES_BIKE, [], { marks, lengths })
  expect(ask({ saddleHeightMm: 70 })).toMatchObject({ length: 'saddleHeightMm', code: 'tenfold' })
  expect(ask({ stackMm: 27.6 })).toMatchObject({ length: 'stackMm', code: 'inches' })
  expect(ask({ saddleHeightMm: 940 })).toMatchObject({ code: 'far' })
  expect(ask({ saddleHeightMm: 705, stackMm: 690 })).toBeNull()
})
