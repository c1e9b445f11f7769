import type { CueRecord, RideRecord } from '../comfort/studioPicture'
import { createRng } from '../base/rng'

type Studio = Readonly<{
  riders: number
  weeks: number
  bikes: number
  signs: readonly string[]
  /** A bike whose saddle is turned, by so many mm, and to which side it sends the soreness. */
  turned?: Readonly<{ bikeId: string; mm: number; side: 'left' | 'right' }>
  /** A cue that works this many times as often as the others. */
  better?: Readonly<{ sign: string; times: number }>
}>

/** Rides a rider has a week, how often they take their usual bike, and how many cues a ride has. Assumptions. */
const RIDES_A_WEEK = 1.5
const USUAL_BIKE_SHARE = 0.5
const CUES_A_RIDE = 0.15
/** One-sided soreness in a ride: of anybody, of who carries one, and for each mm that a saddle is turned. Ours. */
const ONE_SIDED = Object.freeze({ anybody: 0.015, carried: 0.12, aMm: 0.03 })
const WHO_CARRY = 0.06
/** How often a cue works, and how far riders differ in it. */
const ANSWER_PROBABILITY = Object.freeze({ mean: 0.3, sd: 0.08 })

/** A studio's rides and cues over some weeks; some riders carry a sore side with them from bike to bike. Seeded. */
export function simulateStudio(
  seed: number,
  { riders, weeks, bikes, signs, turned, better }: Studio,
): Readonly<{ rides: RideRecord[]; cues: CueRecord[] }> {
  const random = createRng(seed)
  const pick = (below: number) => Math.min(below - 1, Math.floor(random.uniform() * below))
  const rides: RideRecord[] = []
  const cues: CueRecord[] = []
  for (let r = 0; r < riders; r++) {
    const memberId = `member-${r}`
    const usual = `bike-${pick(bikes)}`
    const carried = random.uniform() < WHO_CARRY ? (random.uniform() < 0.5 ? 'left' : 'right') : null
    const answers = ANSWER_PROBABILITY.mean + ANSWER_PROBABILITY.sd * random.normal()
    for (let week = 0; week < weeks; week++) {
      const count = Math.floor(RIDES_A_WEEK) + Number(random.uniform() < RIDES_A_WEEK % 1)
      for (let i = 0; i < count; i++) {
        const bikeId = random.uniform() < USUAL_BIKE_SHARE ? usual : `bike-${pick(bikes)}`
        const chanceOf = (side: 'left' | 'right') =>
          ONE_SIDED.anybody / 2 +
          (carried === side ? ONE_SIDED.carried : 0) +
          (turned?.bikeId === bikeId && turned.side === side ? ONE_SIDED.aMm * turned.mm : 0)
        const drawn = random.uniform()
        const oneSided =
          drawn < chanceOf('left') ? 'left' : drawn < chanceOf('left') + chanceOf('right') ? 'right' : null
        rides.push({ memberId, bikeId, oneSided })
        if (random.uniform() >= CUES_A_RIDE) continue
        const sign = signs[pick(signs.length)]
        const chance = answers * (better?.sign === sign ? better.times : 1)
        cues.push({ memberId, sign, held: random.uniform() < chance })
      }
    }
  }
  return { rides, cues }
}
