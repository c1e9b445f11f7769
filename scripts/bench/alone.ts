/**
 * How well riders end who set themselves up alone by a machine's code: their own readings, with the errors of one
 * alone, beside an instructor by hand and by eye, and after the instructor's one look beside a guided set-up. The same
 * riders in one run. Prints Markdown.
 *
 *   npm run bench:alone -- --seeds 1,2 --riders 200 --samples 1000
 */
import { advise } from '../../core/setups/recommend/recommend'
import type { Evidence } from '../../core/riders/evidence/registry'
import type { Marks } from '../../core/base/conventions'
import * as simulated from '../../core/simulated/simulatedRider'
import { POPULATIONS, type SimulatedRider } from '../../core/simulated/simulatedRider'
import { simulateAlone } from '../../core/simulated/simulatedAlone'
import {
  aMarkExists,
  bikeWith,
  isKneeWithin,
  mean,
  percent,
  RIDERS,
  ridersOf,
  SAMPLES,
  SCALES,
  SEEDS,
  share,
  TOLERANCE,
} from './dismounts/inputs'
import { BY_HAND, follow, WAYS } from './dismounts/walks'

type Ended = Readonly<{ knee: boolean | null; steps: number }>

const kneeAt = (rider: SimulatedRider, at: Marks) =>
  aMarkExists(rider) ? isKneeWithin(rider, at, TOLERANCE.deg) : null

const alone = (rider: SimulatedRider) => simulateAlone(rider, { seed: 1, samples: SAMPLES })

/** The instructor's one look: a reading of the knee where the rider ended, and the change it asks for, if any. */
function lookedAt(rider: SimulatedRider, look: (rider: SimulatedRider, at: Marks) => Evidence): Ended {
  const { evidence, marks } = alone(rider)
  const rows = [...evidence, look(rider, marks)]
  const { next } = advise({ bikeType: rider.bikeType, evidence: rows, seed: 1, samples: SAMPLES })
  const at = { ...marks, ...Object.fromEntries(next.moves.map(({ axis, to }) => [axis, to])) }
  return { knee: kneeAt(rider, at), steps: 1 }
}

const guided = (start: string, method: string) => {
  const way = WAYS.find((one) => one.start === start && one.method === method)!
  return (rider: SimulatedRider): Ended => {
    const { knee, dismounts } = follow(rider, way.from(rider), way.look)
    return { knee, steps: dismounts }
  }
}

const METHODS: Readonly<Record<string, (rider: SimulatedRider) => Ended>> = {
  'alone, by the code': (rider) => {
    const { marks, taps } = alone(rider)
    return { knee: kneeAt(rider, marks), steps: taps }
  },
  'an instructor’s eye, by hand': (rider) => {
    const { knee, dismounts } = BY_HAND['by hand, by eye'](rider)
    return { knee, steps: dismounts }
  },
  'alone, then one look with the goniometer': (rider) => lookedAt(rider, simulated.goniometer),
  'guided, goniometer and plumb line': guided('hip crest', 'goniometer, plumb line'),
  'alone, then one look by eye': (rider) => lookedAt(rider, simulated.kneeByEye),
  'guided, eye, heel and plumb line': guided('hip crest', 'eye, heel, plumb line'),
}

const lines = [`Seeds ${SEEDS.join(', ')}, ${RIDERS} riders a row and seed, ${SAMPLES} samples.`]
for (const population of Object.keys(POPULATIONS)) {
  lines.push(
    '',
    `## Riders: ${population}`,
    '',
    '| seat scale | way | knee 24–36° | taps, or dismounts |',
    '|---|---|---|---|',
  )
  for (const [scale, seatHeight] of Object.entries(SCALES))
    for (const [way, of] of Object.entries(METHODS)) {
      process.stderr.write(`${population}, ${scale}, ${way}\n`)
      const bikeType = bikeWith(seatHeight)
      const ended = SEEDS.flatMap((seed) => ridersOf(POPULATIONS[population], bikeType, seed).map(of))
      const knees = ended.flatMap(({ knee }) => (knee === null ? [] : [knee]))
      lines.push(
        `| ${scale} | ${way} | ${percent(share(knees))} | ${mean(ended.map(({ steps }) => steps)).toFixed(2)} |`,
      )
    }
}
console.log(lines.join('\n'))
