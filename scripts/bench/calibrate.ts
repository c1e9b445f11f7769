/**
 * `npm run bench:calibrate -- --seed 1 --trials 200`: how well nine tape readings with one blunder recover a bike.
 * Every trial: a guess wrong by 15 mm in each coordinate of the origins, 2° in direction, 4 % in spacing, either way;
 * nine settings chosen as the product proposes them; four numbers each, standard deviation 1.5 mm; one number wrong by
 * 25 mm.
 */
import { parseArgs } from 'node:util'
import { createRng, type Rng } from '../../core/base/rng'
import type { BikeType } from '../../core/bikes/bike/bike'
import { axisPositions, contactPoints } from '../../core/bikes/bike/contactPoints'
import { calibrate } from '../../core/bikes/calibration/calibrate'
import { designGrid } from '../../core/bikes/calibration/predictionError'
import { nextDesignPoint } from '../../core/bikes/calibration/nextDesignPoint'
import { LENGTHS, type LengthName, type TapeReading } from '../../core/bikes/calibration/readings'
import { tapeAt, trueTypeFor } from '../../core/simulated/simulatedTape'
import { positionsOf } from '../../core/bikes/scale/scale'
import { axesOf, axisOf } from '../../core/bikes/bike/bike'
import { TYPES } from '../netloftHall'

const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    trials: { type: 'string', default: '200' },
    readings: { type: 'string', default: '9' },
  },
})
const TRIALS = Number(values.trials)
const READINGS = Number(values.readings)
const GUESS = { originMm: 15, directionDeg: 2, spacingShare: 0.04 }
const TAPE_SD_MM = 1.5
const BLUNDER_MM = 25
const TARGET_MM = { saddleHeightMm: 4, setbackMm: 5, reachMm: 5, stackMm: 4 }

type Trial = Readonly<{
  named: boolean
  innocent: number
  worst: Record<LengthName, number>
  errors: Record<LengthName, number[]>
}>

/** The settings the product proposes while nothing has gone wrong: each reading taken as the guess predicts it. */
function proposedSettings(guess: BikeType): TapeReading['marks'][] {
  const readings: TapeReading[] = []
  for (let k = 0; k < READINGS; k++) {
    const { marks } = nextDesignPoint(guess, readings)
    readings.push({ marks, lengths: contactPoints(guess, undefined, axisPositions(guess, marks)).lengths })
  }
  return readings.map((r) => r.marks)
}

function trial(guess: BikeType, settings: readonly TapeReading['marks'][], random: Rng): Trial {
  const truth = trueTypeFor(guess, GUESS, random)
  const clean = settings.map((marks) => tapeAt(truth, marks, random, TAPE_SD_MM))
  const blunder = {
    reading: Math.floor(random.uniform() * clean.length),
    length: LENGTHS[Math.floor(random.uniform() * LENGTHS.length)],
  }
  const by = random.uniform() < 0.5 ? -BLUNDER_MM : BLUNDER_MM
  const readings = clean.map((r, i) =>
    i === blunder.reading ? { ...r, lengths: { ...r.lengths, [blunder.length]: r.lengths[blunder.length]! + by } } : r,
  )
  const fitted = calibrate(guess, readings)
  if (fitted.outcome === 'refused') throw new Error(`refused: ${fitted.reason}`)
  const isBlunder = (s: { reading: number; length: LengthName }) =>
    s.reading === blunder.reading && s.length === blunder.length
  const everywhere = everySetting(guess)
  const errors = Object.fromEntries(
    LENGTHS.map((length) => [
      length,
      everywhere.map(
        (marks) =>
          contactPoints(fitted.bikeType, undefined, axisPositions(fitted.bikeType, marks)).lengths[length] -
          contactPoints(truth, undefined, axisPositions(truth, marks)).lengths[length],
      ),
    ]),
  ) as Record<LengthName, number[]>
  const worst = Object.fromEntries(
    LENGTHS.map((length) => [length, Math.max(...errors[length].map(Math.abs))]),
  ) as Record<LengthName, number>
  return {
    named: fitted.suspects.some(isBlunder),
    innocent: fitted.suspects.filter((s) => !isBlunder(s)).length,
    worst,
    errors,
  }
}

/** Lowest, middle and highest label of every axis, all together. */
function everySetting(type: BikeType): TapeReading['marks'][] {
  return designGrid(type).map((positions) =>
    Object.fromEntries(
      axesOf(type).map((name) => [
        name,
        positionsOf(axisOf(type, name)!.scale).find((s) => s.mm === positions[name])!.label,
      ]),
    ),
  )
}

const quantile = (numbers: readonly number[], share: number) =>
  [...numbers].sort((a, b) => a - b)[Math.min(numbers.length - 1, Math.floor(share * numbers.length))]
const percent = (count: number, of: number) => `${((100 * count) / of).toFixed(1)} %`

console.log(`seed ${values.seed}, ${TRIALS} trials a type, ${READINGS} readings\n`)
console.log(
  '| type | blunder named | trials with an innocent named | saddle height, within 4 mm | ' +
    'setback, within 5 mm | reach, within 5 mm | stack, within 4 mm |',
)
console.log('|---|---|---|---|---|---|---|')
for (const [name, guess] of Object.entries(TYPES)) {
  const settings = proposedSettings(guess)
  const trials = Array.from({ length: TRIALS }, (_, i) =>
    trial(guess, settings, createRng(Number(values.seed) * 100_000 + i)),
  )
  const cell = (length: LengthName) => {
    const within = trials.filter((t) => t.worst[length] <= TARGET_MM[length]).length
    const all = trials.flatMap((t) => t.errors[length].map(Math.abs))
    return (
      `${percent(within, TRIALS)} of trials everywhere (95 % of all settings: ` +
      `${quantile(all, 0.95).toFixed(1)} mm)`
    )
  }
  console.log(
    `| ${name} | ${percent(trials.filter((t) => t.named).length, TRIALS)} | ` +
      `${percent(trials.filter((t) => t.innocent > 0).length, TRIALS)} | ` +
      `${cell('saddleHeightMm')} | ${cell('setbackMm')} | ${cell('reachMm')} | ` +
      `${cell('stackMm')} |`,
  )
}
