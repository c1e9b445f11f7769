import type { LandmarkAtMark } from '../../riders/evidence/definition/landmarks'
import type { School } from '../../base/school/school'

/** Prompt of a step of the set-up: `advice` and `bars` carry the recommendation's own sentence. */
export type Prompt =
  | Readonly<{ code: keyof typeof TEXT }>
  | Readonly<{ code: 'level'; landmark: LandmarkAtMark }>
  | Readonly<{ code: 'start' | 'numbersWithChange'; sentence: string }>
  /** `moves`: the bars are moved now, may be, or stay. */
  | Readonly<{ code: 'bars'; sentence: string; moves: 'now' | 'maybe' | 'no'; reach: School['reach'] }>
  | Readonly<{ code: 'hangPlumb'; from: School['plumbFrom'] }>
  | Readonly<{ code: 'advice'; sentence: string; stays: boolean }>

type Text = Readonly<{ sentence: string; small: string }>

const LANDMARK_TEXT: Readonly<Record<LandmarkAtMark, string>> = {
  hipCrest: 'the top of the hip bone at the side',
  frontHipBone: 'the bony point at the front of the pelvis',
  between: 'half-way from the thigh’s bony knob to the top of the hip bone',
  raisedThigh: 'the upper side of the thigh, lifted level beside the saddle',
  halfThigh: 'half-way up the thigh, lifted level beside the saddle',
}

/** Where the string hangs from, by the studio's school. */
export const PLUMB_FROM_TEXT: Readonly<Record<School['plumbFrom'], string>> = {
  front: 'the front of the knee',
  middle: 'the middle of the kneecap',
}
const RIDER_OFF = 'Rider off, feet on the floor. Close the pin and shake it; then back on and look again.'
const SLOW_FIRST = 'Slow the wheel with the resistance before a foot comes off.'
const REACH_TEXT: Readonly<Record<School['reach'], string>> = {
  barsOnly: 'Never cure a bad reach with the saddle’s slide.',
  slideFirst: 'Too far? Ask first whether the saddle merely stands too far back.',
}

const SEE_A_CLINICIAN =
  'Pain that is sharp, growing or lasting, numbness, swelling, recent surgery or a heart ' +
  'condition: to a licensed clinician before any fitting.'

const TEXT = {
  savedElsewhere: {
    sentence: 'Somebody else saved the numbers of this set-up.',
    small: 'Theirs stand on the rider’s page. To change them, start a new set-up from what was seen here.',
  },
  saved: {
    sentence: 'These numbers are saved.',
    small: 'To change them, start a new set-up from the rider’s page.',
  },
  talk: { sentence: 'Talk first: how much have they ridden, and does anything hurt?', small: SEE_A_CLINICIAN },
  talkPregnant: {
    sentence: 'Their clinician’s word comes first; then fit for comfort only.',
    small: SEE_A_CLINICIAN,
  },
  wait: { sentence: 'One moment.', small: '' },
  plumbToo: {
    sentence: 'Stay in the saddle: level the cranks and hang the plumb line too.',
    small: 'One change then serves both readings, and nobody climbs off twice.',
  },
  setFirst: {
    sentence: 'Set the saddle first, or tap the marks it stands at.',
    small: 'Then rider on, ten to fifteen easy turns.',
  },
  lookAtKnee: {
    sentence: 'Rider on, ten to fifteen easy turns, then hold the pedal at its farthest.',
    small:
      'Direct drive: slow the wheel with the resistance before stopping. Heel check: heel on the pedal, pelvis level.',
  },
  marksMissing: { sentence: 'Tap the mark on every scale, then save.', small: '' },
  otherNumbers: {
    sentence: 'Say every number aloud, save them, and look again in the warm-up.',
    small: 'A comfort set-up, not medical advice. The first ride on a new position is a short one.',
  },
  numbers: {
    sentence: 'Say the four numbers aloud, save them, and look again in the warm-up.',
    small: 'A comfort set-up, not medical advice. The first ride on a new position is a short one.',
  },
} as const satisfies Record<string, Text>

/** The sentence of a step, and the small line under it with the method or a caution. */
export function formatPrompt(prompt: Prompt): Text {
  switch (prompt.code) {
    case 'level':
      return {
        sentence: `Bring the saddle level with ${LANDMARK_TEXT[prompt.landmark]}, then tap the mark it meets.`,
        small: 'The rider stands beside the bike in their shoes and finds the spot. Ask before touching.',
      }
    case 'start':
      return {
        sentence: prompt.sentence,
        small: 'Rider off. Close the pins and shake them; keep the insertion mark covered.',
      }
    case 'hangPlumb':
      return {
        sentence: `Cranks level. Hang a string from ${PLUMB_FROM_TEXT[prompt.from]}: where does it fall?`,
        small: 'Ahead of the pedal axle is plus, behind is minus. A few millimetres are nothing.',
      }
    case 'bars':
      return {
        sentence: prompt.sentence,
        small: {
          now: RIDER_OFF,
          maybe: `Rider off to adjust, or tap other marks on the bars. ${REACH_TEXT[prompt.reach]}`,
          no: SLOW_FIRST,
        }[prompt.moves],
      }
    case 'numbersWithChange':
      return {
        sentence: 'These are the numbers as they stand; one change is still advised.',
        small: prompt.sentence,
      }
    case 'advice':
      return {
        sentence: prompt.sentence,
        small: prompt.stays ? SLOW_FIRST : RIDER_OFF,
      }
    default:
      return TEXT[prompt.code]
  }
}

/** The notice of a set-up on a type without readings of a tape. */
export const formatUnmeasured = (typeName: string): string =>
  `${typeName} was never measured. No tape? Go on: two readings in the saddle will do.`
