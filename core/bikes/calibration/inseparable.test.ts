import { createRng } from '../../base/rng'
import type { Marks } from '../../base/conventions'
import { formatCalibrationRefusal } from '../../messages/bikes/calibration'
import { drawnTruth, randomType } from '../../simulated/randomType'
import { tapeAt } from '../../simulated/simulatedTape'
import { SIX_BIKE } from '../../testing/furtherTypes'
import { axesOf } from '../bike/bike'
import { axisPositions, contactPoints } from '../bike/contactPoints'
import { calibrate } from './calibrate'
import { fitTape } from './fitTape'
import { nextDesignPoint } from './nextDesignPoint'
import { typeWith } from './parameters'
import { designGrid, predictionSd } from './predictionError'
import { LENGTHS, observationsOf, type TapeReading } from './readings'

const exactly = (type: typeof SIX_BIKE, marks: Marks): TapeReading => tapeAt(type, marks, createRng(1), 0)
const saddleOnly = ({ marks, lengths: { saddleHeightMm, setbackMm } }: TapeReading): TapeReading => ({
  marks,
  lengths: { saddleHeightMm, setbackMm },
})

/** Frame and seat height always up together, the rest by turns. */
const ALIKE: Marks[] = ['1A', '4B', '8C', '12D', '15E'].flatMap((one, i) => {
  const [seatHeight, frameHeight] = [one.slice(0, -1), one.slice(-1)]
  return ['A', 'G'].map((seatSlide, k) => ({
    seatHeight,
    frameHeight,
    seatSlide,
    barHeight: ['1', '6', '12'][(i + k) % 3],
    barSlide: ['-4', '0', '4'][(i + 2 * k) % 3],
  }))
})

test('frame and seat height moved alike, with the saddle alone read, are refused: nothing tells them apart', () => {
  const answer = calibrate(
    SIX_BIKE,
    ALIKE.map((marks) => saddleOnly(exactly(SIX_BIKE, marks))),
  )
  // Without the bars' lengths their own axes stay as guessed; only what the saddle sees is asked of.
  expect(answer).toMatchObject({ outcome: 'refused', reason: 'cannotTellApart', axes: ['seatHeight', 'frameHeight'] })
  if (answer.outcome === 'refused')
    expect(formatCalibrationRefusal(SIX_BIKE, answer)).toMatch(/cannot tell seat height and Lift apart/)
})

test('with all four lengths the bars show the frame, and the same settings fit', () => {
  const answer = calibrate(
    SIX_BIKE,
    ALIKE.map((marks) => exactly(SIX_BIKE, marks)),
  )
  expect(answer.outcome).toBe('fitted')
})

test('the settings the product proposes tell every adjustment apart, and recover the bike', () => {
  const truth = drawnTruth(SIX_BIKE, createRng(5))
  const readings: TapeReading[] = []
  for (let k = 0; k < 10; k++) readings.push(exactly(truth, nextDesignPoint(SIX_BIKE, readings).marks))
  const answer = calibrate(SIX_BIKE, readings)
  if (answer.outcome !== 'fitted') throw new Error(answer.reason)
  const [is, was] = [designGrid(truth), designGrid(answer.bikeType)]
  is.forEach((positions, i) => {
    const [a, b] = [contactPoints(truth, undefined, positions), contactPoints(answer.bikeType, undefined, was[i])]
    for (const length of LENGTHS) expect(Math.abs(a.lengths[length] - b.lengths[length])).toBeLessThan(2.5)
  })
})

test('standard deviations are honest on types drawn at random: about 95 in 100 lie within 1.96 of them', () => {
  let [within, all] = [0, 0]
  for (let i = 0; i < 14; i++) {
    const guess = randomType(createRng(300 + i))
    const settings: TapeReading[] = []
    for (let k = 0; k < 4 + axesOf(guess).length; k++) {
      const { marks } = nextDesignPoint(guess, settings)
      settings.push({ marks, lengths: contactPoints(guess, undefined, axisPositions(guess, marks)).lengths })
    }
    for (let trial = 0; trial < 4; trial++) {
      const random = createRng(900 + 10 * i + trial)
      const truth = drawnTruth(guess, random)
      const observed = observationsOf(settings.map(({ marks }) => tapeAt(truth, marks, random, 1.5)))
      const ones = observed.map(() => 1)
      const fit = fitTape(guess, observed, ones)
      const fitted = typeWith(guess, fit.parameters)
      const grids = [guess, truth, fitted].map(designGrid)
      grids[0].forEach((positions, k) => {
        if (k % 7 !== 0) return
        const is = contactPoints(truth, undefined, grids[1][k]).lengths
        const said = contactPoints(fitted, undefined, grids[2][k]).lengths
        for (const length of LENGTHS) {
          const sd = predictionSd(guess, fit.parameters, fit.covariance, positions, length)
          if (Math.abs(is[length] - said[length]) <= 1.96 * sd) within++
          all++
        }
      })
    }
  }
  expect(within / all).toBeGreaterThan(0.92)
  expect(within / all).toBeLessThan(0.98)
})

test('what the tape does not see, and what is printed on the bike, stays as it was described', () => {
  const answer = calibrate(
    SIX_BIKE,
    ALIKE.map((marks) => exactly(SIX_BIKE, marks)),
  )
  if (answer.outcome !== 'fitted') throw new Error(answer.reason)
  expect(answer.bikeType.axes.crankLength).toEqual(SIX_BIKE.axes.crankLength)
  expect(answer.bikeType.axes.frameHeight?.name).toBe('Lift')
})
