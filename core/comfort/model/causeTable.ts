import { Type } from '@sinclair/typebox'
import { closed, oneOf, type Plain } from '../../base/schema'
import { SIGNS } from '../../classes/watch/signs'
import rows from './causeTable.json' with { type: 'json' }

/** What may be complained of (wire format), from the front of the knee to what is never a matter of the bike. */
export const COMPLAINTS = [
  'frontKnee',
  'topOfKnee',
  'outerKnee',
  'backOfKnee',
  'hipPinch',
  'lowBack',
  'neck',
  'shoulders',
  'hands',
  'wrist',
  'saddlePressure',
  'chafing',
  'oneSidedSoreness',
  'slidingForward',
  'frontThighs',
  'keepsMovingBack',
  'cramped',
  'stretched',
  'feet',
  'kneesMeetBars',
  'chest',
  'breath',
  'faint',
  'calfSwelling',
  'abdomen',
] as const
export type ComplaintName = (typeof COMPLAINTS)[number]

/** What may be behind a complaint (wire format). */
export const CAUSES = [
  'saddleTooLow',
  'saddleTooHigh',
  'saddleTooFarForward',
  'saddleTooFarBack',
  'noseDown',
  'noseUp',
  'saddleTwisted',
  'barsTooLow',
  'barsTooFar',
  'barsTooNear',
  'footPlacement',
  'strapOrCleat',
  'handHabit',
  'weakTrunk',
  'viewingAngle',
  'kit',
  'postSlipped',
  'wrongNumbers',
  'changedShoes',
  'heavyLoad',
  'legDifference',
  'offCentre',
  'roundedSpine',
  'tightHips',
  'cranksTooLong',
  'saddleShape',
  'softShoe',
  'newIndoors',
  'slideSlipped',
  'oldAnkle',
  'tooSoftSaddle',
  'bracing',
] as const
export type Cause = (typeof CAUSES)[number]

/** How often a cause is behind a complaint before anything was looked at, as odds against each other. Ours. */
export const SUSPICION_ODDS = Object.freeze({ usual: 6, common: 3, possible: 1.3, rare: 0.4 })
/** How much a finding of this strength multiplies or divides the odds of a cause. Ours. */
export const FINDING_FACTOR = Object.freeze({ weak: 1.35, fair: 2.2, strong: 4 })

export const WAYS = ['up', 'down', 'forward', 'back'] as const
export const CHANGED_AXES = ['seatHeight', 'seatSlide', 'barHeight', 'barSlide', 'tilt', 'crankLength'] as const
export type ChangedAxis = (typeof CHANGED_AXES)[number]
export type Way = (typeof WAYS)[number]

const text = Type.String({ minLength: 1, maxLength: 300 })
const orNone = <S extends Parameters<typeof Type.Union>[0][number]>(schema: S) => Type.Union([schema, Type.Null()])
const causes = Type.Array(oneOf(CAUSES), { uniqueItems: true })
const words = {
  above: Type.Optional(Type.Number()),
  below: Type.Optional(Type.Number()),
  from: Type.Optional(Type.Number()),
  to: Type.Optional(Type.Number()),
}
const when = Type.Union([
  closed({
    kind: Type.Literal('kneeAngle'),
    side: oneOf(['above', 'within', 'below']),
    /** Degrees beyond the school's window. */
    by: Type.Number({ minimum: 0 }),
  }),
  /** Millimetres beyond the school's window. */
  closed({ kind: Type.Literal('plumb'), side: oneOf(['ahead', 'within', 'behind']), by: Type.Number({ minimum: 0 }) }),
  /** Millimetres beyond the bars' window for this school and rider. */
  closed({
    kind: Type.Literal('barsAgainstSaddle'),
    side: oneOf(['below', 'notBelow']),
    by: Type.Number({ minimum: 0 }),
  }),
  closed({ kind: oneOf(['viewAngle', 'footPitch', 'trunkAngle', 'forearmGauge', 'saddleLine']), ...words }),
  closed({ kind: Type.Literal('reachFeel'), seen: oneOf(['stretched', 'right', 'cramped']) }),
  closed({ kind: Type.Literal('clearance'), seen: oneOf(['clear', 'touches']) }),
  closed({ kind: Type.Literal('heelCheck'), seen: oneOf(['justStraight', 'stillBent', 'cannotReach']) }),
  closed({ kind: Type.Literal('kneeByEye'), seen: Type.Literal('slightBend') }),
  closed({ kind: Type.Literal('build'), of: oneOf(['longTorso', 'shortTorso', 'heavyUpperBody', 'tightHips']) }),
  /** The newest reading differs from an older one, and nothing was changed between them. */
  closed({ kind: Type.Literal('drift'), of: oneOf(['kneeAngle', 'plumb']), way: oneOf(['up', 'down', 'either']) }),
  closed({ kind: Type.Literal('tilt'), outcome: oneOf(['good', 'noseUp', 'noseDown']) }),
  closed({ kind: Type.Literal('elbows'), seen: oneOf(['locked', 'soft', 'cramped']) }),
  closed({ kind: Type.Literal('rocking'), seen: oneOf(['level', 'both', 'oneSide']) }),
  closed({ kind: Type.Literal('cadence'), load: oneOf(['light', 'heavy']), ...words }),
  closed({
    kind: Type.Literal('changed'),
    what: oneOf(['shoes', 'bike', 'saddle', 'numbers', 'cleats']),
    /** So many days ago, or fewer. */
    below: Type.Number(),
  }),
  closed({
    kind: Type.Literal('seen'),
    sign: oneOf(SIGNS.map(({ sign }) => sign)),
    side: Type.Optional(Type.Literal('opposite')),
  }),
  closed({ kind: Type.Literal('complaint'), side: oneOf(['one', 'both']) }),
  closed({ kind: Type.Literal('complaint'), when: oneOf(['seated', 'standing', 'late', 'after', 'hardEfforts']) }),
  closed({ kind: Type.Literal('experience'), is: oneOf(['new', 'regular', 'experienced']) }),
])
export type When = Plain<typeof when>

/**
 * The table of complaints, causes and findings: data that a physiotherapist can read and edit, each row with its
 * source.
 * A finding has one strength and the same for every cause it speaks for: so a finding that supports a cause never
 * lowers its weight, even if it supports other causes.
 */
export const causeTableSchema = closed({
  complaints: Type.Array(
    closed({
      complaint: oneOf(COMPLAINTS),
      name: text,
      causes: Type.Array(
        closed({
          cause: oneOf(CAUSES),
          suspicion: oneOf(['usual', 'common', 'possible', 'rare']),
          why: text,
          source: text,
        }),
      ),
    }),
  ),
  causes: Type.Array(
    closed({
      cause: oneOf(CAUSES),
      name: text,
      /** A cheap look before anything is changed. */
      check: text,
      /** What to do where it is the cause. */
      remedy: text,
      change: orNone(closed({ axis: oneOf(CHANGED_AXES), direction: oneOf(WAYS) })),
      cue: orNone(text),
      offBike: orNone(text),
      source: text,
    }),
  ),
  findings: Type.Array(
    closed({
      rule: text,
      when,
      strength: oneOf(['weak', 'fair', 'strong']),
      for: causes,
      against: causes,
      /** Empty where the note of the class contains it. */
      say: Type.String({ maxLength: 300 }),
      source: text,
    }),
  ),
})
export type CauseTable = Plain<typeof causeTableSchema>
export type FindingRule = CauseTable['findings'][number]
export type CauseRow = CauseTable['causes'][number]
export type ComplaintRow = CauseTable['complaints'][number]

/** The table as it ships; `causeTable.test.ts` validates it against its schema. */
export const CAUSE_TABLE = rows as CauseTable

const byComplaint = new Map(CAUSE_TABLE.complaints.map((row) => [row.complaint, row]))
const byCause = new Map(CAUSE_TABLE.causes.map((row) => [row.cause, row]))
export const complaintRow = (complaint: ComplaintName): ComplaintRow => byComplaint.get(complaint)!
export const causeRow = (cause: Cause): CauseRow => byCause.get(cause)!
