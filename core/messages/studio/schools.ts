import type { School } from '../../base/school/school'

type Choices<K extends keyof School> = School[K] extends string
  ? Readonly<Record<School[K], Readonly<{ name: string; means: string }>>>
  : never
type ChoiceKey = { [K in keyof School]: School[K] extends string ? K : never }[keyof School]

/** A choice of the school: what it is about, and every answer with what it means, in a sentence. */
export type SchoolChoice = Readonly<{
  field: ChoiceKey
  title: string
  question: string
  choices: Readonly<Record<string, Readonly<{ name: string; means: string }>>>
}>

const choice = <K extends ChoiceKey>(field: K, title: string, question: string, choices: Choices<K>): SchoolChoice => ({
  field,
  title,
  question,
  choices: choices as SchoolChoice['choices'],
})

/** All choices where practitioners disagree, in the order of work. */
export const SCHOOL_CHOICES: readonly SchoolChoice[] = [
  choice('order', 'Order of work', 'What is set first?', {
    saddleFirst: { name: 'Saddle first', means: 'Seat height, slide, height again, then the bars.' },
    heightsFirst: {
      name: 'Heights first',
      means: 'Seat and bar height, then both slides, since slides hang on height.',
    },
  }),
  choice('startLandmark', 'First seat height', 'Where does the saddle start, beside the bike?', {
    hipCrest: {
      name: 'Hip crest',
      means: 'Level with the top of the hip bone at the side; easy to find, comes out high.',
    },
    frontHipBone: { name: 'Front hip bone', means: 'Level with the bony point at the front of the pelvis.' },
    between: { name: 'Between', means: 'Half-way from the thigh’s bony knob to the hip crest.' },
    raisedThigh: { name: 'Lifted thigh', means: 'Level with the thigh lifted beside the saddle; crude, no touching.' },
    halfThigh: { name: 'Half-way up it', means: 'Half-way up the lifted thigh; lower and cruder.' },
    factor0883: { name: '0.883', means: 'Axle to saddle top is 0.883 of the inseam; needs a tape.' },
    percent109: { name: '109 %', means: 'Farthest pedal to saddle top is 109 % of the inseam; needs a tape.' },
    heelLength: {
      name: 'Heel length',
      means: 'Farthest pedal to saddle top is heel to sit bone, in shoes; comes out low.',
    },
  }),
  choice('foot', 'Foot', 'How does the rider hold the foot at the bottom?', {
    natural: { name: 'Natural', means: 'Each rider’s own ankle; some fifteen degrees heel up.' },
    level: { name: 'Level', means: 'Coached whole-foot press; some 15 to 20 mm lower in the seat.' },
  }),
  choice('heelCheck', 'Heel check', 'What is the heel on the pedal worth?', {
    evidence: { name: 'Evidence', means: 'It informs like any other look; the knee decides.' },
    target: { name: 'Target', means: 'The leg just straight on the heel is what is wanted.' },
    ceiling: { name: 'Ceiling', means: 'Never higher than that; lower is allowed for comfort.' },
    unused: { name: 'Unused', means: 'Not used: a rocking pelvis looks like a pass, and the seat ends too high.' },
  }),
  choice('foreAft', 'Saddle fore and aft', 'What does the slide go by?', {
    plumb: { name: 'Plumb', means: 'The knee hangs over the pedal axle, a few millimetres either way.' },
    midFoot: { name: 'Mid-foot', means: 'The knee hangs over the middle of the foot, some 60 mm behind the axle.' },
    balance: {
      name: 'Balance by build',
      means: 'By torso, weight and hips; the line only guards against gross errors.',
    },
    unused: { name: 'Unused', means: 'The slide stays in its middle unless the rider’s needs speak.' },
  }),
  choice('plumbFrom', 'Plumb line from', 'Which part of the kneecap does the string hang from?', {
    front: { name: 'Its front', means: 'The bony front of the knee.' },
    middle: { name: 'Its middle', means: 'Some 10 mm behind the front; readings are carried over.' },
  }),
  choice('reach', 'A reach that does not suit', 'Where is it cured?', {
    barsOnly: { name: 'At the bars', means: 'The slide belongs to the pedals; where the bars end, another type.' },
    slideFirst: { name: 'Slide looked at first', means: 'First asks whether the saddle stands too far back.' },
  }),
  choice('newcomers', 'Newcomers', 'Do they begin lower?', {
    sameWindow: { name: 'Same window', means: 'From the first day in the window of everybody.' },
    starterLow: {
      name: 'Starter, low',
      means: 'A mark lower for confidence, raised after three rides: a plan, not a miss.',
    },
  }),
  choice('bars', 'Bars', 'How high?', {
    byExperience: {
      name: 'By experience',
      means: 'Above for the new and the sore, level for the regular, low for road habits.',
    },
    neverBelow: { name: 'Never below', means: 'As by experience, but never under the saddle.' },
    above: { name: 'Above', means: 'Above the saddle for everyone.' },
    riderChooses: {
      name: 'Rider chooses',
      means: 'Lowest and highest are both shown; one starts low and raises if it bothers.',
    },
  }),
  choice('tilt', 'Saddle tilt', 'What is a good angle?', {
    byShape: { name: 'By shape', means: 'Flat level to −2°, tail kick −2 to −4°, curved −3 to −6°.' },
    level: { name: 'Level', means: 'Level to −2° for every shape, an alarm beyond 4°.' },
    relief: { name: 'Relief', means: 'Small steps either way against pressure.' },
  }),
]
