import rows from './signs.json' with { type: 'json' }

/** Body regions in the order a class is looked over: from the feet up, since what goes wrong below shows above. */
export const REGIONS = ['feet', 'knees', 'hips', 'spine', 'shoulders', 'head', 'hands', 'load'] as const
export type Region = (typeof REGIONS)[number]

export const REGION_NAME: Readonly<Record<Region, string>> = Object.freeze({
  feet: 'Feet',
  knees: 'Knees',
  hips: 'Hips',
  spine: 'Spine',
  shoulders: 'Shoulders',
  head: 'Head',
  hands: 'Arms, hands',
  load: 'Legs, load',
})

/**
 * Something seen in class. `cue` is the one sentence for it, aimed at the cause rather than the sign; where
 * that fails again and again, `setUp` is what to look at on the bike first, and `strength` what to train off it (common
 * practice, no source; texts are ours).
 */
export type Sign = Readonly<{
  sign: string
  region: Region
  name: string
  cue: string
  sided: boolean
  setUp: string | null
  strength: string | null
}>

/** All that is noted in class, from the feet up; a studio may word the cues otherwise. `signs.test.ts` validates it. */
export const SIGNS: readonly Sign[] = Object.freeze(rows as Sign[])

const BY_NAME = new Map(SIGNS.map((sign) => [sign.sign, sign]))
export const signNamed = (sign: string): Sign | undefined => BY_NAME.get(sign)

const SPOKEN: Readonly<Record<Region, string>> = {
  feet: 'feet',
  knees: 'knees',
  hips: 'hips',
  spine: 'spine',
  shoulders: 'shoulders',
  head: 'head',
  hands: 'hands',
  load: 'legs',
}

/** Names that contain the part they are about. */
const NAMES_PART = /^(toes|heel|arch|strap|elbows|hands|wrist|hard grip|sitting|sliding|keeps|pulling)/i

/** "knees out", "toes pointing down": in one breath, with the region unless the name contains it. */
export const formatSign = ({ region, name }: Sign): string =>
  region === 'load' || NAMES_PART.test(name) ? name.toLowerCase() : `${SPOKEN[region]} ${name.toLowerCase()}`
