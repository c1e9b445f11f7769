import type { Evidence } from '../../../core/riders/evidence/registry'
import { riderScores, studioPrior } from '../../../core/setups/learning/studioPrior'
import { advise } from '../../../core/setups/recommend/recommend'
import { priorFor, type Prior } from '../../../core/riders/rider/prior'
import { createRng } from '../../../core/base/rng'
import { DEFAULT_SCHOOL } from '../../../core/base/school/school'
import * as simulated from '../../../core/simulated/simulatedRider'
import type { SimulatedRider } from '../../../core/simulated/simulatedRider'
import { bikeWith, isKneeWithin, percent, ridersOf, SAMPLES, SCALES, SEEDS, share } from './inputs'

/** The table of a studio whose riders' legs are longer, before and after it learned. */
export const learning = (): string[] => [
  '',
  '## A studio whose riders’ legs are 3 % longer, after 60 set-ups',
  '',
  '| seed | first suggestion right before | after | ratio | learned leg factor |',
  '|---|---|---|---|---|',
  ...SEEDS.map(learned),
]

/** A studio whose riders' legs are 3 % longer: right at the first mount by stature alone, before and after learning. */
function learned(seed: number): string {
  const bikeType = bikeWith(SCALES['letters 12.7 mm'])
  const longLegs = priorFor('natural', { legFactor: { mean: 1.03, sd: 0.035 } })
  const random = createRng(seed)
  const statureOf = (rider: SimulatedRider): Evidence[] => [simulated.answerBeside(rider, 'stature')]
  const taught = Array.from({ length: 60 }, (_, k) => {
    const rider = simulated.drawRider(longLegs, bikeType, random)
    const at = { seatHeight: recommendedHeight(rider, statureOf(rider)), seatSlide: 'D' }
    const evidence = [
      ...simulated.statureAndInseam(rider),
      simulated.goniometer(rider, at),
      simulated.plumbLine(rider, at),
    ]
    return riderScores({ bikeType, evidence }, DEFAULT_SCHOOL, k + 1)
  })
  const { prior } = studioPrior(taught, DEFAULT_SCHOOL)
  const first = (riders: readonly SimulatedRider[], taughtPrior: Partial<Prior>) =>
    share(
      riders.map((rider) => {
        const body = { evidence: statureOf(rider), prior: taughtPrior }
        const { next, marks } = advise({ bikeType, ...body, seed: 1, samples: SAMPLES })
        return isKneeWithin(rider, { ...marks, ...Object.fromEntries(next.moves.map((m) => [m.axis, m.to])) })
      }),
    )
  const riders = ridersOf(longLegs, bikeType, seed + 1000)
  const [before, after] = [first(riders, {}), first(riders, prior)]
  return (
    `| ${seed} | ${percent(before)} | ${percent(after)} | ${(after / before).toFixed(2)} | ` +
    `${prior.legFactor!.mean.toFixed(3)} |`
  )
}

export const recommendedHeight = ({ bikeType }: SimulatedRider, evidence: readonly Evidence[]): string =>
  advise({ bikeType, evidence, seed: 1, samples: SAMPLES }).next.moves[0].to
