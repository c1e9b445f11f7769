/**
 * How well riders end who set themselves up alone by a machine's code: their own readings, with the errors of one
 * alone, beside an instructor by hand and by eye, and after the instructor's one look beside a guided set-up. The same
 * riders in one run. Prints Markdown.
 *
 *   npm run bench:alone -- --seeds 1,2 --riders 200 --samples 1000
 *   npm run bench:alone -- --riders 400 --only 'own, letters.*(code|eye, by hand)'
 */
import type { Marks } from '../../core/base/conventions'
import { POPULATIONS, type SimulatedRider } from '../../core/simulated/simulatedRider'
import { simulateAlone } from '../../core/simulated/simulatedAlone'
import {
  aMarkExists,
  bikeWith,
  isKneeWithin,
  mean,
  ONLY,
  percent,
  RIDERS,
  ridersOf,
  SAMPLES,
  SCALES,
  SEEDS,
  share,
  TOLERANCE,
} from './dismounts/inputs'
import { BY_HAND, follow, WAYS, type Looks } from './dismounts/walks'

type Ended = Readonly<{ knee: boolean | null; steps: number }>

const kneeAt = (rider: SimulatedRider, at: Marks) =>
  aMarkExists(rider) ? isKneeWithin(rider, at, TOLERANCE.deg) : null

const alone = (rider: SimulatedRider) => simulateAlone(rider, { seed: 1, samples: SAMPLES })

/** The instructor's look: the set-up goes on from what the rider read of themselves, until nothing is to be changed. */
const lookedAt =
  (look: Looks) =>
  (rider: SimulatedRider): Ended => {
    const { knee, dismounts } = follow(rider, { evidence: alone(rider).evidence }, look)
    return { knee, steps: dismounts }
  }

const guided = (start: string, method: string) => {
  const way = WAYS.find((one) => one.start === start && one.method === method)!
  return (rider: SimulatedRider): Ended => {
    const { knee, dismounts } = follow(rider, way.from(rider), way.look)
    return { knee, steps: dismounts }
  }
}

const lookOf = (method: string): Looks => WAYS.find((one) => one.method === method)!.look

const METHODS: Readonly<Record<string, (rider: SimulatedRider) => Ended>> = {
  'alone, by the code': (rider) => {
    const { marks, taps } = alone(rider)
    return { knee: kneeAt(rider, marks), steps: taps }
  },
  'an instructor’s eye, by hand': (rider) => {
    const { knee, dismounts } = BY_HAND['by hand, by eye'](rider)
    return { knee, steps: dismounts }
  },
  'alone, then a look with goniometer and plumb line': lookedAt(lookOf('goniometer, plumb line')),
  'guided, goniometer and plumb line': guided('hip crest', 'goniometer, plumb line'),
  'alone, then a look by eye, heel and plumb line': lookedAt(lookOf('eye, heel, plumb line')),
  'guided, eye, heel and plumb line': guided('hip crest', 'eye, heel, plumb line'),
}

console.log(`Seeds ${SEEDS.join(', ')}, ${RIDERS} riders a row and seed, ${SAMPLES} samples.`)
for (const population of Object.keys(POPULATIONS)) {
  console.log(
    `\n## Riders: ${population}\n\n| seat scale | way | knee 24–36° | taps, or dismounts |\n|---|---|---|---|`,
  )
  for (const [scale, seatHeight] of Object.entries(SCALES))
    for (const [way, of] of Object.entries(METHODS)) {
      if (!ONLY.test(`${population}, ${scale}, ${way}`)) continue
      const bikeType = bikeWith(seatHeight)
      const ended = SEEDS.flatMap((seed) => ridersOf(POPULATIONS[population], bikeType, seed).map(of))
      const knees = ended.flatMap(({ knee }) => (knee === null ? [] : [knee]))
      console.log(
        `| ${scale} | ${way} | ${percent(share(knees))} | ${mean(ended.map(({ steps }) => steps)).toFixed(2)} |`,
      )
    }
}
