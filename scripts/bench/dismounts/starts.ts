import type { Evidence } from '../../../core/riders/evidence/registry'
import { advise } from '../../../core/setups/recommend/recommend'
import * as simulated from '../../../core/simulated/simulatedRider'
import { POPULATIONS, type SimulatedRider } from '../../../core/simulated/simulatedRider'
import { bikeWith, isKneeWithin, isPlumbWithin, ridersOf, SAMPLES, SCALES, SEEDS } from './inputs'
import { statedTable, type Stated } from './stated'

/** The chance stated with the first saddle, by the evidence; each rider with a seed of their own. */
export function starts(): string[] {
  const evidenceOf: Readonly<Record<string, (rider: SimulatedRider) => Evidence[]>> = {
    stature: (rider) => [simulated.answerBeside(rider, 'stature')],
    'hip crest': (rider) => [simulated.crestAtMark(rider)],
    'crest, stature, inseam': (rider) => [simulated.crestAtMark(rider), ...simulated.statureAndInseam(rider)],
  }
  const stated = Object.fromEntries(
    Object.entries(evidenceOf).map(([name, evidenceOf]) => [
      name,
      Object.values(SCALES).flatMap((scale) =>
        SEEDS.flatMap((seed) =>
          ridersOf(POPULATIONS.own, bikeWith(scale), seed + 3000).map((rider, i): Stated => {
            const evidence = evidenceOf(rider)
            const { chance, marks } = advise({ bikeType: rider.bikeType, evidence, seed: i + 1, samples: SAMPLES })
            return { chance, true: isKneeWithin(rider, marks) && isPlumbWithin(rider, marks) }
          }),
        ),
      ),
    ]),
  )
  return statedTable('Stated chances at the start, by what was told', { ...stated, all: Object.values(stated).flat() })
}
