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

const CALVES = 'slow calf raises and toe lifts, ten a side, every other day'
const HIPS = 'side-lying leg lifts, twelve a side, three times a week'
const TRUNK = 'hip hinges with a stick along the back, and half-minute planks, three times a week'
const THORACIC = 'turning the upper back on all fours, ten a side, daily'
const NONE = null

type Row = readonly [
  sign: string,
  name: string,
  cue: string,
  setUp: string | null,
  strength: string | null,
  whole?: 'whole',
]

const BY_REGION: Readonly<Record<Region, readonly Row[]>> = {
  feet: [
    [
      'turnedOut',
      'Turned out',
      'Let the toes come in only as far as the ankle likes.',
      'strap or cleat of that foot',
      HIPS,
    ],
    ['turnedIn', 'Turned in', 'Let the heel come in until the toes look ahead.', 'strap or cleat of that foot', HIPS],
    ['unevenFeet', 'Uneven', 'Set both feet the same way: ball over the axle.', 'both straps or cleats', NONE, 'whole'],
    ['toesDown', 'Toes pointing down', 'Let the heel ride as low as the toes.', 'seat height: it may be high', CALVES],
    [
      'heelDropped',
      'Heel dropped',
      'Keep the foot flat at the bottom of the turn.',
      'seat height: it may be low',
      CALVES,
    ],
    [
      'archOnPedal',
      'Arch on the pedal',
      'Slide the foot back until its ball is over the axle.',
      'strap or cleat',
      NONE,
    ],
    ['strapLoose', 'Strap loose', 'At the next easy block, pull the strap snug.', 'strap of that pedal', NONE],
  ],
  knees: [
    [
      'kneesOut',
      'Out',
      'Feet first: toes ahead, then let the knees run along the frame.',
      'feet, then seat height',
      HIPS,
    ],
    ['kneesIn', 'In', 'Press through the middle of the foot, knee over the second toe.', 'feet, then cleats', HIPS],
    [
      'locked',
      'Locked at the bottom',
      'Keep a little bend at the bottom of the turn.',
      'seat height: it may be high',
      NONE,
    ],
    [
      'deepBend',
      'Deep bend at the bottom',
      'Sit tall for now; after class we look at the seat.',
      'seat height: it may be low',
      NONE,
    ],
    [
      'aheadOfToes',
      'Ahead of the toes',
      'Sit back on the wide part of the saddle.',
      'saddle slide: it may be forward',
      NONE,
    ],
  ],
  hips: [
    [
      'rocking',
      'Rocking',
      'Sit heavy on both sit bones and let the legs do the moving.',
      'seat height: it may be high',
      TRUNK,
      'whole',
    ],
    [
      'slidingForward',
      'Sliding forward',
      'Scoot back to the wide part of the saddle.',
      'saddle tilt, then reach',
      TRUNK,
      'whole',
    ],
    [
      'movesBack',
      'Keeps moving back',
      'Find the wide part once, and stay there.',
      'saddle slide: it may be back',
      NONE,
      'whole',
    ],
    [
      'toOneSide',
      'Sitting to one side',
      'Same weight on left and right sit bone.',
      'saddle straight on its post',
      HIPS,
    ],
    [
      'turnedHips',
      'Turned',
      'Both hip bones look at the wheel; let the eyes turn, not the body.',
      'saddle straight, place in the room',
      HIPS,
    ],
  ],
  spine: [
    [
      'rounded',
      'Rounded',
      'Tip from the hips and make the front of you long.',
      'bars, then tilt: a nose that points up; then the slide',
      TRUNK,
      'whole',
    ],
    [
      'overArched',
      'Over-arched',
      'Let the ribs sink a little toward the belt.',
      'saddle tilt: the nose may point down; then reach',
      TRUNK,
      'whole',
    ],
    [
      'twisted',
      'Twisted',
      'Breastbone over the top tube; only the eyes go to the screen.',
      'place in the room',
      THORACIC,
    ],
  ],
  shoulders: [
    [
      'shrugged',
      'Shrugged',
      'Breathe out and let the shoulder blades slide down.',
      'bars: they may be low or far',
      THORACIC,
    ],
    [
      'collapsed',
      'Collapsed onto the bars',
      'Sit bones heavy first, then lift the breastbone a little.',
      'bars: are they at their highest?',
      TRUNK,
      'whole',
    ],
    [
      'pullingAway',
      'Pulling away on the fingertips',
      'Rest the whole hand, elbows soft.',
      'bars: are they at their highest?',
      TRUNK,
      'whole',
    ],
  ],
  head: [
    [
      'hanging',
      'Hanging',
      'Eyes to the far wall; lift the breastbone, not the chin.',
      'bars: height',
      THORACIC,
      'whole',
    ],
    [
      'craned',
      'Craned up',
      'Sit tall from the hips and let the chin come in.',
      'bars: they may be low',
      THORACIC,
      'whole',
    ],
    ['turnedHead', 'Turned', 'Look with the eyes and keep the nose over the bars.', 'place in the room', THORACIC],
  ],
  hands: [
    ['elbowsLocked', 'Elbows locked', 'Soften the elbows until they point down.', 'reach, then saddle tilt', TRUNK],
    [
      'elbowsIn',
      'Elbows turned in',
      'Let the elbows hang out a little and point down.',
      'bars: turned in their clamp, or where the hands lie',
      THORACIC,
    ],
    [
      'wristBent',
      'Wrist bent',
      'Soft elbows, straight wrists, a grip that could hold an egg.',
      'bars: height and where the hands lie',
      NONE,
    ],
    ['hardGrip', 'Hard grip', 'Open the fingers once, and close them half as hard.', 'saddle tilt and bars', TRUNK],
    ['handsStay', 'Hands never move', 'Every few minutes the hands go somewhere else.', 'bars', NONE, 'whole'],
  ],
  load: [
    ['bouncing', 'Bouncing', 'Add load until the saddle is quiet under you.', 'resistance of that bike', NONE, 'whole'],
    [
      'grinding',
      'Grinding',
      'Take load off until the legs turn with the music.',
      'resistance of that bike',
      NONE,
      'whole',
    ],
    [
      'feetStopped',
      'Feet stopped at speed',
      'Slow the wheel with the load first, then the feet.',
      'stop lever and resistance',
      NONE,
      'whole',
    ],
    [
      'behindBeat',
      'Behind the beat',
      'Less load, same music: one foot, one beat.',
      'resistance of that bike',
      NONE,
      'whole',
    ],
    [
      'aheadOfBeat',
      'Ahead of the beat',
      'More load, same music: let the beat set the legs.',
      'resistance of that bike',
      NONE,
      'whole',
    ],
  ],
}

/** All that is noted in class, from the feet up; a studio may word the cues otherwise. */
export const SIGNS: readonly Sign[] = Object.freeze(
  REGIONS.flatMap((region) =>
    BY_REGION[region].map(([sign, name, cue, setUp, strength, whole]): Sign => ({
      sign,
      region,
      name,
      cue,
      sided: whole === undefined,
      setUp,
      strength,
    })),
  ),
)

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
const SAYS_PART = /^(toes|heel|arch|strap|elbows|hands|wrist|hard grip|sitting|sliding|keeps|pulling)/i

/** "knees out", "toes pointing down": in one breath, with the region unless the name contains it. */
export const formatSign = ({ region, name }: Sign): string =>
  region === 'load' || SAYS_PART.test(name) ? name.toLowerCase() : `${SPOKEN[region]} ${name.toLowerCase()}`
