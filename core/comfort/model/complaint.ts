import type { FeltRegion, RedFlag } from '../../classes/watch/comfort'
import type { Region } from '../../classes/watch/signs'
import type { ComplaintName } from './causeTable'
import type { HEALTH, MOMENTS, QUALITIES } from './request'

export type Moment = (typeof MOMENTS)[number]
export type Quality = (typeof QUALITIES)[number]
export type Health = (typeof HEALTH)[number]

/** Who reported a complaint. */
export const REPORTERS = ['instructor', 'member'] as const
/** The complaint that corresponds to something felt on the floor. */
export const COMPLAINT_OF_FELT: Readonly<Record<FeltRegion, ComplaintName>> = Object.freeze({
  feltFeet: 'feet',
  feltKneeFront: 'frontKnee',
  feltKneeSide: 'outerKnee',
  feltKneeBack: 'backOfKnee',
  feltThighs: 'frontThighs',
  feltHips: 'hipPinch',
  feltSaddle: 'saddlePressure',
  feltLowBack: 'lowBack',
  feltNeck: 'neck',
  feltHands: 'hands',
})

/** What is felt of the whole body or of the bike: neither left nor right. */
export const WITHOUT_SIDE: readonly ComplaintName[] = [
  'slidingForward',
  'keepsMovingBack',
  'cramped',
  'stretched',
  'chest',
  'breath',
  'faint',
]

/** What a red flag from the floor implies of the complaint; the place is still missing. */
export const COMPLAINT_OF_RED_FLAG: Readonly<
  Record<
    RedFlag,
    Readonly<{ what?: ComplaintName; lasts?: true; quality?: readonly Quality[]; health?: readonly Health[] }>
  >
> = Object.freeze({
  chest: { what: 'chest' },
  sharp: { quality: ['sharp'] },
  numbLasts: { lasts: true },
  swelling: { quality: ['swelling'] },
  growing: { quality: ['growing'] },
  calf: { what: 'calfSwelling' },
  pregnancy: { health: ['pregnant'] },
  operation: { health: ['recentOperation'] },
})

/** Where on the body a complaint is felt; null for what is felt of the bike, or of the whole body. */
export const REGION_OF: Readonly<Record<ComplaintName, Region | null>> = Object.freeze({
  frontKnee: 'knees',
  topOfKnee: 'knees',
  outerKnee: 'knees',
  backOfKnee: 'knees',
  hipPinch: 'hips',
  lowBack: 'spine',
  neck: 'head',
  shoulders: 'shoulders',
  hands: 'hands',
  wrist: 'hands',
  saddlePressure: 'hips',
  chafing: 'hips',
  oneSidedSoreness: 'hips',
  slidingForward: null,
  frontThighs: 'load',
  keepsMovingBack: null,
  cramped: null,
  stretched: null,
  feet: 'feet',
  kneesMeetBars: null,
  chest: null,
  breath: null,
  faint: null,
  calfSwelling: null,
  abdomen: null,
})
