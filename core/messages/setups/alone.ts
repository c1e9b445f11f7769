import type { EvidenceOf } from '../../riders/evidence/registry'
import type { LandmarkAtMark } from '../../riders/evidence/definition/landmarks'

/** What a rider alone is told and asked. Types alone are imported: the page opens before the arithmetic is there. */

/** Health comes first: one of these, and the page gives no advice. */
export const NOT_ALONE: readonly string[] = [
  'You are pregnant.',
  'You have a heart condition, or chest pain.',
  'You had an operation, and are not cleared to train.',
  'A pain that is sharp, or one-sided and growing; numbness, swelling or dizziness.',
]
export const ASK_INSTRUCTOR =
  'Then not alone. Ask the instructor before you ride: your clinician’s word comes first, and they set you up with ' +
  'you. Nothing of this was stored.'

type Ask<V extends string> = Readonly<{
  title: string
  choices: readonly Readonly<{ value: V; name: string; hint?: string }>[]
}>

/** The answer to the health question and to this one is one tap. */
export const EXPERIENCE: Ask<EvidenceOf<'rider'>['experience']> = {
  title: 'None of it. I have ridden indoors',
  choices: [
    { value: 'new', name: 'Never' },
    { value: 'regular', name: 'Often' },
    { value: 'experienced', name: 'For years' },
  ],
}
export const FEET: Ask<'cage' | 'cleat'> = {
  title: 'How are your feet held?',
  choices: [
    { value: 'cage', name: 'Strap', hint: 'any shoe' },
    { value: 'cleat', name: 'Cleats', hint: 'they click in' },
  ],
}

/** Where a landmark is, and what is brought level with it. */
export const FIND_LANDMARK: Readonly<Record<LandmarkAtMark, string>> = {
  hipCrest: 'Feel for the top of your hip bone, at your side. Lift the saddle until its top is level with it.',
  frontHipBone:
    'Feel for the bony point at the front of your hip. Lift the saddle until its top is level with that point.',
  between:
    'Feel for the top of your hip bone and for the bony knob at the top of your thigh. Lift the saddle until its top ' +
    'is half-way between them.',
  raisedThigh: 'Lift your knee until the thigh is level. Lift the saddle until its top is level with the thigh.',
  halfThigh: 'Lift your knee until the thigh is level. Lift the saddle until its top is half-way up the thigh.',
}
export const STAND_BESIDE = 'Stand tall beside the bike, in the shoes you ride in.'
export const WHICH_MARK = 'Which mark stands at the edge of the tube now?'

type Setting = Readonly<{ title: string; text: string; done: string }>

/** A setting of the machine, by why. */
export const SETTING: Readonly<Record<'low' | 'yours' | 'better', Setting>> = {
  low: {
    title: 'First too low, to feel it',
    text:
      'Set these, get on, and turn ten easy times. Your knees stay deeply bent and come up high: that is too low. ' +
      'You reach the floor here, so practise getting on and off.',
    done: 'Set and shaken',
  },
  yours: {
    title: 'Now yours',
    text: 'Off the bike, both feet on the floor. Close and shake each pin.',
    done: 'Set and shaken',
  },
  better: {
    title: 'A small change',
    text: 'Off the bike first. Change only this; close it and shake it.',
    done: 'Changed and shaken',
  },
}

export const FOREARM: Ask<'0' | '50' | '-50'> = {
  title: 'Beside the bike: elbow at the saddle’s nose, fingers stretched to the bars',
  choices: [
    { value: '0', name: 'Fingertips reach' },
    { value: '50', name: 'A hand short' },
    { value: '-50', name: 'They go past' },
  ],
}
export const HEEL: Ask<'justStraight' | 'stillBent' | 'little' | 'much'> = {
  title: 'On the bike, ten easy turns, then stop: heel on the pedal at its lowest, hips still',
  choices: [
    { value: 'justStraight', name: 'Leg just straight' },
    { value: 'stillBent', name: 'Still bent' },
    { value: 'little', name: 'Heel a finger or two short' },
    { value: 'much', name: 'Heel far short of it' },
  ],
}
/** The same on the seat that is too low on purpose; the answer also says that it was tried. */
export const HEEL_LOW = 'Still too low: heel on the pedal at its lowest, hips still'
export const KNEE: Ask<EvidenceOf<'kneeByEye'>['seen']> = {
  title: 'Ball of the foot on the pedal, at its lowest. Feel and see your knee: it is',
  choices: [
    { value: 'slightBend', name: 'Slightly bent' },
    { value: 'deepBend', name: 'Deeply bent' },
    { value: 'locked', name: 'Locked straight' },
  ],
}
export const LOOK_DOWN: Ask<'overAxle' | 'midFoot' | 'aheadOfAxle'> = {
  title: 'Ball of the foot over the axle, cranks level. Look straight down past your front knee',
  choices: [
    { value: 'overAxle', name: 'It just hides the ball of the foot' },
    { value: 'midFoot', name: 'I see much of the shoe' },
    { value: 'aheadOfAxle', name: 'I see no shoe at all' },
  ],
}
export const ELBOWS: Ask<EvidenceOf<'elbows'>['seen']> = {
  title: 'Hands where you will ride, shoulders low. Your elbows are',
  choices: [
    { value: 'soft', name: 'Softly bent' },
    { value: 'locked', name: 'Straight, stretched' },
    { value: 'cramped', name: 'Cramped, much bent' },
  ],
}

export const AFTERWARDS =
  'Change one mark a ride at most, and let an instructor look. Anything that hurts: stop, and tell them.'
export const CANNOT_FIT = 'This bike ends before you do. Ask the instructor: another one may suit you better.'
export const ABOUT_NAME =
  'With a name the instructor finds you in the list and looks at you first. Stored: the name, these numbers and what ' +
  'you tapped here, until somebody looked, at most 30 days.'
