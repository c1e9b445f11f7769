import type { BikeType } from '../../bikes/bike/bike'
import type { QuestionValue } from '../../setups/recommend/steps/nextQuestion'
import type { Question } from '../../setups/recommend/request/questionCosts'
import type { Starter } from '../../setups/recommend/steps/starter'
import { formatLabel } from '../words/labels'

/** Questions by name. */
export const QUESTION_NAME: Readonly<Record<Question, string>> = Object.freeze({
  hipCrestAtMark: 'hip crest at the saddle',
  frontHipBoneAtMark: 'front hip bone at the saddle',
  stature: 'stature',
  inseam: 'inseam',
  trochanterHeight: 'height of the thigh’s bony knob',
  thigh: 'thigh length',
  shank: 'shank length',
  footPitch: 'foot angle',
  goniometer: 'knee angle',
  plumb: 'plumb line',
  kneeByEye: 'knee by eye',
  heelCheck: 'heel check',
  rocking: 'look from behind',
  plumbByEye: 'knee over pedal by eye',
})

const REQUEST: Readonly<Record<Question, string>> = {
  hipCrestAtMark: 'Bring the saddle level with the hip crest too',
  frontHipBoneAtMark: 'Bring the saddle level with the front hip bone too',
  stature: 'Ask how tall they are',
  inseam: 'Take the inseam with a tape',
  trochanterHeight: 'Measure from the floor to the bony knob at the top of the thigh',
  thigh: 'Measure the thigh, knob to knee',
  shank: 'Measure the shank, knee to ankle',
  footPitch: 'Look at the foot’s angle at the bottom',
  goniometer: 'Measure the knee angle',
  plumb: 'Hang the plumb line',
  kneeByEye: 'Look at the knee at the bottom',
  heelCheck: 'Try the heel on the pedal',
  rocking: 'Look from behind whether the pelvis rocks',
  plumbByEye: 'Look where the knee hangs over the pedal',
}

/** "Take the inseam with a tape: about 25 seconds, saves 1 in 5 riders a dismount." */
export const formatQuestion = ({ question, gain, costS }: QuestionValue): string =>
  `${REQUEST[question]}: about ${Math.round(costS)} seconds, saves ${riderShare(gain)} a dismount.`

/** "Take the inseam with a tape?", for a button. */
export const formatQuestionTitle = (question: Question): string => `${REQUEST[question]}?`

const riderShare = (gain: number): string =>
  gain >= 0.75 ? 'most riders' : `1 in ${Math.max(2, Math.round(1 / Math.max(gain, 0.01)))} riders`

/** The same in a few words: "20 s, saves 1 in 6 riders a dismount". */
export const formatWorth = ({ gain, costS }: QuestionValue): string =>
  `${Math.round(costS)} s, saves ${riderShare(gain)} a dismount`

/** "Begin at 5, one mark lower; after three rides raise to 6." */
export function formatStarter(bikeType: BikeType, { from, to, afterRides }: Starter): string {
  return (
    `A newcomer may begin at ${formatLabel(bikeType, 'seatHeight', to)} for confidence; after ` +
    `${afterRides} rides raise to ${formatLabel(bikeType, 'seatHeight', from)}.`
  )
}
