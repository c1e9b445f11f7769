import { Type, type TObject } from '@sinclair/typebox'
import { between, closed, defined, oneOf, pairOf, type Plain } from '../schema'

/** Ways to the first seat height, beside the bike. */
export const START_LANDMARKS = [
  'hipCrest',
  'frontHipBone',
  'between',
  'raisedThigh',
  'halfThigh',
  'factor0883',
  'percent109',
  'heelLength',
] as const

/** A studio's school: where practitioners disagree, the studio's own choice. The first named is the default. */
const schoolFields = {
  order: oneOf(['saddleFirst', 'heightsFirst']),
  /** Target knee flexion at the bottom, degrees, ends included. */
  kneeWindowDeg: pairOf(between(0, 90)),
  foot: oneOf(['natural', 'level']),
  heelCheck: oneOf(['evidence', 'target', 'ceiling', 'unused']),
  foreAft: oneOf(['plumb', 'midFoot', 'balance', 'unused']),
  /** The part of the kneecap the plumb line hangs from, where a reading has none. */
  plumbFrom: oneOf(['front', 'middle']),
  /** Whether a bad reach is cured at the bars only, or the slide is looked at first. */
  reach: oneOf(['barsOnly', 'slideFirst']),
  /** Newcomers in the same window, or begun lower with a date to raise. */
  newcomers: oneOf(['sameWindow', 'starterLow']),
  startLandmark: oneOf(START_LANDMARKS),
  bars: oneOf(['byExperience', 'neverBelow', 'above', 'riderChooses']),
  tilt: oneOf(['byShape', 'level', 'relief']),
}
export type School = Plain<TObject<typeof schoolFields>>
/** As it is sent: what is left out is the default. */
export const schoolSchema = Type.Partial(closed(schoolFields), { additionalProperties: false })

export const DEFAULT_SCHOOL: School = Object.freeze({
  order: 'saddleFirst',
  kneeWindowDeg: [25, 35] as const,
  foot: 'natural',
  heelCheck: 'evidence',
  foreAft: 'plumb',
  plumbFrom: 'front',
  reach: 'barsOnly',
  newcomers: 'sameWindow',
  startLandmark: 'hipCrest',
  bars: 'byExperience',
  tilt: 'byShape',
})

/** A school with the defaults where nothing was chosen; a choice that is there but undefined is none. */
export const schoolOf = (chosen: Partial<School> = {}): School => ({ ...DEFAULT_SCHOOL, ...defined(chosen) })

/** Target plumb offset with the cranks level, mm, by school of fore-aft. */
export const PLUMB_WINDOW_MM: Readonly<Record<School['foreAft'], readonly [number, number]>> = Object.freeze({
  plumb: [-15, 15] as const,
  midFoot: [-90, -30] as const,
  balance: [-90, 20] as const,
  unused: [-Infinity, Infinity] as const,
})

/** Target height of the grip above the seat point, mm, by posture of the bars. */
export const BAR_WINDOW_MM = Object.freeze({
  above: [20, 100] as const,
  level: [-15, 20] as const,
  low: [-80, -15] as const,
})

/** Trunk above level in the riding posture, degrees, by what the rider wishes; ours. */
export const TRUNK_WINDOW_DEG = Object.freeze({
  upright: [60, 72] as const,
  level: [52, 62] as const,
  low: [42, 54] as const,
})
export type Posture = keyof typeof TRUNK_WINDOW_DEG

/** Fingertips short of the grip with the elbow at the saddle's nose, mm. */
export const FOREARM_GAP_WINDOW_MM = Object.freeze([-20, 20] as const)

export const inWindow = (value: number, [low, high]: readonly [number, number]): boolean =>
  value >= low && value <= high
