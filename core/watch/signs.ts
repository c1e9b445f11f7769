/** Body regions in the order a class is looked over: from the feet up, since what goes wrong below shows above. */
export const REGIONS = ['feet', 'knees', 'hips', 'spine', 'shoulders', 'hands'] as const
export type Region = (typeof REGIONS)[number]

export const REGION_NAME: Readonly<Record<Region, string>> = Object.freeze({
  feet: 'Feet',
  knees: 'Knees',
  hips: 'Hips',
  spine: 'Spine',
  shoulders: 'Shoulders',
  hands: 'Hands',
})

/** Something seen in class, with the one sentence to say for it, aimed at the root rather than at what shows. */
export type Sign = Readonly<{ sign: string; region: Region; name: string; cue: string; sided: boolean }>

/** Ten signs with cues of our own wording; a studio will edit these. */
export const SIGNS: readonly Sign[] = Object.freeze([
  {
    sign: 'toesDown',
    region: 'feet',
    name: 'Toes pointing down',
    cue: 'Let the heel ride as low as the toes.',
    sided: true,
  },
  { sign: 'turnedOut', region: 'feet', name: 'Turned out', cue: 'Point both shoes at the front wheel.', sided: true },
  {
    sign: 'kneesOut',
    region: 'knees',
    name: 'Out',
    cue: 'Feet first: toes ahead, then let the knees run along the frame.',
    sided: true,
  },
  {
    sign: 'kneesIn',
    region: 'knees',
    name: 'In',
    cue: 'Press through the middle of the foot, knee over the second toe.',
    sided: true,
  },
  {
    sign: 'locked',
    region: 'knees',
    name: 'Locked at the bottom',
    cue: 'Keep a little bend as the pedal goes by the floor.',
    sided: true,
  },
  {
    sign: 'rocking',
    region: 'hips',
    name: 'Rocking',
    cue: 'Sit heavy on both sit bones and let the legs do the moving.',
    sided: false,
  },
  {
    sign: 'slidingForward',
    region: 'hips',
    name: 'Sliding forward',
    cue: 'Scoot back to the wide part of the saddle.',
    sided: false,
  },
  {
    sign: 'rounded',
    region: 'spine',
    name: 'Rounded',
    cue: 'Tip from the hips and make the front of you long.',
    sided: false,
  },
  {
    sign: 'shrugged',
    region: 'shoulders',
    name: 'Shrugged',
    cue: 'Breathe out and let the shoulder blades slide down.',
    sided: true,
  },
  {
    sign: 'wristBent',
    region: 'hands',
    name: 'Wrist bent',
    cue: 'Soft elbows, straight wrists, a grip that could hold an egg.',
    sided: true,
  },
])

/** "knees out", "hips rocking": region and sign in one breath. */
export const formatSign = ({ region, name }: Sign): string =>
  `${REGION_NAME[region].toLowerCase()} ${name.toLowerCase()}`

export const signNamed = (sign: string): Sign | undefined => SIGNS.find((s) => s.sign === sign)
