/**
 * How often a rider climbs off, and whether the saddle truly ends right, for simulated riders with given bodies:
 * two ways by hand beside the recommendation, all with the same checks in one mount, knee *and* plumb line. Then
 * whether stated chances are true, what a studio's own set-ups teach, and what knowing one's eye is worth. Prints
 * Markdown.
 *
 *   npm run bench:dismounts -- --seeds 1,2 --riders 200 --samples 1000
 *   npm run bench:dismounts -- --riders 400 --only 'letters, hip crest'
 *   npm run bench:dismounts -- --riders 1000 --samples 4000 --parts starts
 */
import * as simulated from '../../core/simulated/simulatedRider'
import { POPULATIONS, type SimulatedRider } from '../../core/simulated/simulatedRider'
import { eyes } from './dismounts/eyes'
import {
  bikeWith,
  mean,
  ONLY,
  PARTS,
  percent,
  RIDERS,
  ridersOf,
  SAMPLES,
  SCALES,
  SEEDS,
  share,
} from './dismounts/inputs'
import { learning } from './dismounts/learning'
import { starts } from './dismounts/starts'
import { statedTable } from './dismounts/stated'
import { BY_HAND, drawToday, follow, WAYS, type Ended } from './dismounts/walks'

const lines: string[] = []
const print = (...more: string[]) => lines.push(...more)
const all: Ended[] = []

for (const population of PARTS.has('walks') ? Object.keys(POPULATIONS) : []) {
  print('', `## Riders: ${population}`, '')
  print('| seat scale | start | method | dismounts | bound | right at the first mount | knee right | both right |')
  print('|---|---|---|---|---|---|---|---|')
  for (const [scale, seatHeight] of Object.entries(SCALES)) {
    const bikeType = bikeWith(seatHeight)
    const row = (start: string, method: string, of: (rider: SimulatedRider) => Ended, make = simulated.drawRider) => {
      if (!ONLY.test(`${scale}, ${start}, ${method}`)) return
      process.stderr.write(`${population}, ${scale}, ${start}, ${method}\n`)
      const ended = SEEDS.flatMap((seed) => ridersOf(POPULATIONS[population], bikeType, seed, make).map(of))
      if (population === 'own') all.push(...ended)
      const knees = ended.flatMap((e) => (e.knee === null ? [] : [e.knee]))
      print(
        `| ${scale} | ${start} | ${method} | ${mean(ended.map((e) => e.dismounts)).toFixed(2)} | ` +
          `${(1 - share(ended.map((e) => e.first))).toFixed(2)} | ${percent(share(ended.map((e) => e.first)))} | ` +
          `${percent(share(knees))} | ${percent(share(ended.map((e) => e.both)))} |`,
      )
    }
    for (const [method, walk] of Object.entries(BY_HAND)) row('hip crest', method, walk)
    for (const { start, method, from, look } of WAYS)
      row(
        start,
        method,
        (rider) => follow(rider, from(rider), look),
        start === 'known on another type' ? drawToday : simulated.drawRider,
      )
  }
}

if (PARTS.has('walks'))
  print(
    ...statedTable('Stated chances, riders of the model’s own spreads', {
      height: all.flatMap((e) => e.stated.height),
      slide: all.flatMap((e) => e.stated.slide),
      start: all.flatMap((e) => e.stated.start),
    }),
  )
if (PARTS.has('starts')) print(...starts())
if (PARTS.has('learning')) print(...learning())
if (PARTS.has('eyes')) print(...eyes())
console.log([`Seeds ${SEEDS.join(', ')}, ${RIDERS} riders a row and seed, ${SAMPLES} samples.`, ...lines].join('\n'))
