import type { LandmarkAtMark } from '../../riders/evidence/definition/landmarks'
import type { School } from '../../base/school/school'

/** Body landmarks as buttons and flags name them. */
export const LANDMARK_NAME: Readonly<Record<LandmarkAtMark, string>> = {
  hipCrest: 'Hip crest',
  frontHipBone: 'Front hip bone',
  between: 'Between',
  raisedThigh: 'Lifted thigh',
  halfThigh: 'Half-way up the thigh',
}

/** All questions, looks and measurements of a set-up, by card. */
export const CHECKS = [
  'recheck',
  'rider',
  'build',
  'school',
  'landmark',
  'tape',
  'limbs',
  'kneeByEye',
  'kneeAngle',
  'gauge',
  'heelCheck',
  'rocking',
  'footPitch',
  'plumb',
  'plumbByEye',
  'wish',
  'elbows',
  'reachFeel',
  'clearance',
  'trunkAngle',
  'forearmGauge',
] as const
export type CheckName = (typeof CHECKS)[number]

/** A card's short name, what good looks like, the instructor's place, and the words to the rider. */
export type CheckText = Readonly<{ name: string; look: string; say: string }>

export const CHECK_TEXT: Readonly<Record<CheckName, CheckText>> = Object.freeze({
  recheck: {
    name: 'As before?',
    look: 'Same shoes and pedal side, nothing hurts, and the mark on the post is the one written down.',
    say: 'Are these the same shoes, and is everything well?',
  },
  rider: {
    name: 'Rider',
    look: 'Watch how the feet point as they walk in: even or uneven turn-out travels onto the pedals.',
    say: 'How much have you ridden indoors, and does anything hurt?',
  },
  build: {
    name: 'Build',
    look: 'A long or heavy upper body sits farther back, a short one or tight hips farther forward.',
    say: 'Do your hips feel tight, at a desk all day perhaps?',
  },
  school: {
    name: 'School',
    look: 'For this rider alone, where the studio’s way does not suit; who changed what, and when, is kept.',
    say: 'I will set you up a little differently from our usual way, and write it down.',
  },
  landmark: {
    name: 'Landmark',
    look: 'Look from the side, your eyes at the height of the saddle: its top and the spot on one level line.',
    say: 'Find the spot with your thumb, and stand tall beside the saddle.',
  },
  tape: {
    name: 'Tape',
    look: 'Back to a wall, heels down; for the inseam a thin book pressed up firmly, spine level.',
    say: 'Stand tall, and press the book up as a saddle would.',
  },
  limbs: {
    name: 'Limbs',
    look: 'Joint to joint: hip knob, outer knee, outer ankle bone; arm from shoulder to the middle of the fist.',
    say: 'Show me the knob at the top of the thigh, and the knee’s outer knob.',
  },
  kneeByEye: {
    name: 'By eye',
    look: 'From the side, at the height of the knee: slightly bent is good, never locked, never deep.',
    say: 'Ten easy turns, then stop with this pedal at its farthest.',
  },
  kneeAngle: {
    name: 'Goniometer',
    look: 'Hip knob, outer knee, outer ankle bone; pedal in line with the post, the foot as they ride.',
    say: 'Hold the pedal there, and keep your foot as you ride.',
  },
  gauge: {
    name: 'Gauge',
    look: 'Strapped with its hinge at the outer knee, one arm toward the hip knob, the other toward the ankle bone.',
    say: 'Hold the pedal at its farthest, quite still, three times.',
  },
  heelCheck: {
    name: 'Heel',
    look: 'Heel on the pedal at its farthest, pelvis level: the leg is just straight.',
    say: 'Put your heel on the pedal and stretch the leg, without leaning over.',
  },
  rocking: {
    name: 'Behind',
    look: 'Stand behind, eyes level with the saddle: the pelvis stays level. Ball of the foot first.',
    say: 'Keep turning easily, and look straight ahead.',
  },
  footPitch: {
    name: 'Foot',
    look: 'At the bottom of the stroke: how far the heel is up against level.',
    say: 'Turn as you always do; do not think of your foot.',
  },
  plumb: {
    name: 'String',
    look: 'The string hangs free from the front of the knee, the foot held as it rides; read where it passes the axle.',
    say: 'Stop with the cranks level, this foot in front.',
  },
  plumbByEye: {
    name: 'By eye',
    look: 'Cranks level, from the side: where the front of the knee hangs over the foot.',
    say: 'Stop with the cranks level, this foot in front.',
  },
  wish: {
    name: 'Wish',
    look: 'Show the low and the high place first; the lower, the more the pelvis must tip.',
    say: 'Would you rather sit up, level, or low as on the road?',
  },
  elbows: {
    name: 'Elbows',
    look: 'A slight bend, shoulders low, wrists straight, back long from the hips.',
    say: 'Take the place on the bars where you ride most, and let the shoulders drop.',
  },
  reachFeel: {
    name: 'Feel',
    look: 'Neither stretched nor cramped; weight on the saddle, not on the hands.',
    say: 'Could you lift your hands for a moment without falling forward?',
  },
  clearance: {
    name: 'Knees',
    look: 'Out of the saddle, hips over its front third: the knees clear the bars.',
    say: 'Stand up with some resistance, hips over the front of the saddle.',
  },
  trunkAngle: {
    name: 'Trunk',
    look: 'From the side: the line from hip to shoulder above level.',
    say: 'Ride easily with your hands where they mostly are.',
  },
  forearmGauge: {
    name: 'Forearm',
    look: 'Elbow at the saddle’s nose, fingers toward the bar: fingertips reach it, a hand’s width short is too far.',
    say: 'Put your elbow to the nose of the saddle and stretch your fingers.',
  },
})

/** A card's text as the studio's school has it: where the string hangs from, and what decides the slide. */
export function checkText(check: CheckName, { plumbFrom, foreAft }: Pick<School, 'plumbFrom' | 'foreAft'>): CheckText {
  const text = CHECK_TEXT[check]
  if (check === 'plumb' && plumbFrom === 'middle')
    return {
      ...text,
      look: 'The string hangs free from the middle of the kneecap, the foot as it rides; read it at the axle.',
    }
  if (check === 'plumbByEye' && foreAft === 'unused')
    return { ...text, look: `${text.look} Here it guards against gross errors only.` }
  return text
}
