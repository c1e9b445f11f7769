import type { BikeType } from '../../bikes/bike/bike'
import type { Marks } from '../../base/conventions'
import { advise, type Advice } from './recommend'
import type { RecommendRequest } from './request/request'

/** Another type for the same rider: where it would be set, and how likely its saddle and its bars suit there. */
export type OtherType = Readonly<{ name: string; marks: Marks; chance: number; barsChance: number }>

/** Enough samples to compare types, not marks. */
const SAMPLES = 1000

/** Where this bike ends for a rider: its saddle, or its bars at their best. */
export const hasEnded = ({ kind, barsEnd }: Advice['next']): boolean => kind === 'outOfRange' || barsEnd !== undefined

/**
 * The other types, best first: the body is estimated from this set-up and the earlier ones, and each type is
 * started with it. Types on which the saddle ends as well are left out.
 */
export function otherTypes(request: RecommendRequest, types: readonly BikeType[]): OtherType[] {
  const { bikeType, bike, evidence, history = [], school, prior, seed } = request
  const here = { bikeType, ...(bike && { bike }), evidence: evidence.slice(-MAX_ROWS), agoDays: 0 }
  const bodyRows = evidence.filter((row) => row.kind === 'rider' || row.kind === 'build')
  return types
    .map((type): OtherType | null => {
      const advice = advise({
        bikeType: type,
        school,
        prior,
        seed,
        samples: SAMPLES,
        history: [here, ...history].slice(0, MAX_SETUPS),
        evidence: bodyRows,
      })
      const saddle = advice.next.reasons.find((reason) => reason.code === 'chance')
      if (advice.next.kind === 'outOfRange' || saddle?.code !== 'chance') return null
      return { name: type.name, marks: advice.marks, chance: saddle.chance, barsChance: advice.bars.chance }
    })
    .filter((one): one is OtherType => one !== null)
    .sort((a, b) => b.chance * b.barsChance - a.chance * a.barsChance || b.chance - a.chance)
}
/** The request's own limits on a set-up of the past. */
const MAX_ROWS = 200
const MAX_SETUPS = 20
