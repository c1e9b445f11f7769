import { Type, type Static } from '@sinclair/typebox'
import { bikeTypeRef, SADDLE_SHAPES, TILT_ACROSS } from '../../bikes/bike/bike'
import { marksRef } from '../../base/conventions'
import { between, closed, oneOf, type Plain } from '../../base/schema'
import { schoolSchema } from '../../base/school/school'
import { COMPLAINTS } from './causeTable'

/** When something is felt. */
export const MOMENTS = ['seated', 'standing', 'late', 'after', 'hardEfforts'] as const
/** How it feels, as far as that stops fit advice. */
export const QUALITIES = ['sharp', 'growing', 'night', 'locking', 'givingWay', 'swelling'] as const
export const HEALTH = ['pregnant', 'recentOperation', 'heart'] as const

const side = oneOf(['left', 'right', 'both'])

export const complaintSchema = closed({
  what: oneOf(COMPLAINTS),
  side: Type.Optional(side),
  /** 0 nothing to 10 as bad as can be. */
  strength: between(0, 10),
  when: Type.Optional(oneOf(MOMENTS)),
  /** Whether it outlasts the ride. */
  lasts: Type.Optional(Type.Boolean()),
  quality: Type.Optional(Type.Array(oneOf(QUALITIES), { maxItems: 6, uniqueItems: true })),
})
export type Complaint = Plain<typeof complaintSchema>

/** How old a finding is, and whether it was made on a bike of another type: both make it count less. */
const found = {
  daysAgo: Type.Optional(between(0, 3650)),
  otherType: Type.Optional(Type.Boolean()),
}
const FINDING_KINDS = {
  kneeAngle: closed({ kind: Type.Literal('kneeAngle'), deg: between(-20, 90), ...found }),
  plumb: closed({ kind: Type.Literal('plumb'), mm: between(-400, 400), ...found }),
  /** Minus is nose down. */
  tilt: closed({
    kind: Type.Literal('tilt'),
    deg: between(-30, 30),
    shape: Type.Optional(oneOf(SADDLE_SHAPES)),
    /** How the board lay: over the two highest points, or over the front half; the window goes by it. */
    across: Type.Optional(oneOf(TILT_ACROSS)),
    ...found,
  }),
  /** Grip above the saddle, minus below it. */
  barsAgainstSaddle: closed({ kind: Type.Literal('barsAgainstSaddle'), mm: between(-500, 500), ...found }),
  elbows: closed({ kind: Type.Literal('elbows'), seen: oneOf(['locked', 'soft', 'cramped']), ...found }),
  rocking: closed({ kind: Type.Literal('rocking'), seen: oneOf(['level', 'both', 'left', 'right']), ...found }),
  /** A note of the class: a region and what was seen there, as `seenSign` reads it. */
  seen: closed({
    kind: Type.Literal('seen'),
    region: Type.String({ minLength: 1, maxLength: 40 }),
    what: Type.String({ minLength: 1, maxLength: 80 }),
    side: Type.Optional(side),
    /** Whether a cue for it worked. */
    held: Type.Optional(Type.Boolean()),
    ...found,
  }),
  changed: closed({
    kind: Type.Literal('changed'),
    what: oneOf(['shoes', 'bike', 'saddle', 'numbers', 'cleats']),
    daysAgo: between(0, 3650),
  }),
  /** From the bike's heading to instructor or screen, either way. */
  viewAngle: closed({ kind: Type.Literal('viewAngle'), deg: between(-180, 180), ...found }),
  reachFeel: closed({ kind: Type.Literal('reachFeel'), seen: oneOf(['stretched', 'right', 'cramped']), ...found }),
  clearance: closed({ kind: Type.Literal('clearance'), seen: oneOf(['clear', 'touches']), ...found }),
  /** Trunk above level in the riding position. */
  trunkAngle: closed({ kind: Type.Literal('trunkAngle'), deg: between(0, 120), ...found }),
  /** Fingertips short of the bar with the elbow at the saddle's nose, minus over it. */
  forearmGauge: closed({ kind: Type.Literal('forearmGauge'), mm: between(-300, 400), ...found }),
  heelCheck: closed({
    kind: Type.Literal('heelCheck'),
    seen: oneOf(['justStraight', 'stillBent', 'cannotReach']),
    ...found,
  }),
  /** The foot at the bottom of the stroke, heel up is plus. */
  footPitch: closed({ kind: Type.Literal('footPitch'), deg: between(-60, 80), ...found }),
  kneeByEye: closed({ kind: Type.Literal('kneeByEye'), seen: oneOf(['slightBend']), ...found }),
  build: closed({
    kind: Type.Literal('build'),
    torso: oneOf(['long', 'even', 'short']),
    heavyUpperBody: Type.Optional(Type.Boolean()),
    tightHips: Type.Optional(Type.Boolean()),
    ...found,
  }),
  /** How far the saddle's nose points off the frame's line, either way. */
  saddleLine: closed({ kind: Type.Literal('saddleLine'), mm: between(-60, 60), ...found }),
  cadence: closed({ kind: Type.Literal('cadence'), rpm: between(0, 250), load: oneOf(['light', 'heavy']), ...found }),
} as const
export type FindingKind = keyof typeof FINDING_KINDS
export type Finding = { [K in FindingKind]: Plain<(typeof FINDING_KINDS)[K]> }[FindingKind]
const KINDS = Object.keys(FINDING_KINDS) as FindingKind[]

/** Any kind's finding: its schema depends on its kind. */
const findingSchema = Type.Unsafe<Static<(typeof FINDING_KINDS)[FindingKind]>>({
  type: 'object',
  required: ['kind'],
  properties: { kind: { enum: KINDS } },
  allOf: KINDS.map((kind) => ({
    if: { properties: { kind: { const: kind } }, required: ['kind'] },
    then: FINDING_KINDS[kind],
  })),
})

/** Request of `explain`: what is felt, what was found, and where the rider sits. */
export const explainSchema = closed({
  bikeType: Type.Optional(bikeTypeRef),
  marks: Type.Optional(marksRef),
  experience: Type.Optional(oneOf(['new', 'regular', 'experienced'])),
  complaints: Type.Array(complaintSchema, { minItems: 1, maxItems: 12 }),
  health: Type.Optional(Type.Array(oneOf(HEALTH), { maxItems: 3, uniqueItems: true })),
  findings: Type.Array(findingSchema, { maxItems: 200 }),
  school: Type.Optional(schoolSchema),
})
export type ExplainRequest = Plain<typeof explainSchema>
