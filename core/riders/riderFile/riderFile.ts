import { Type } from '@sinclair/typebox'
import { pointSchema, type Point } from '../../base/conventions'
import { between, closed, oneOf, refTo, type Plain } from '../../base/schema'
import type { Lengths } from '../../bikes/bike/contactPoints'
import { PEDAL_SIDES } from '../../bikes/bike/bike'
import { bodyBeliefSchema } from '../inference/bodyBelief'
import { limitSchema } from '../limits/limits'

export const RIDER_FILE_FORMAT = 'rider-set-up'
export const RIDER_FILE_VERSION = 1
/** Characters of a file; a rider with every set and limit needs a tenth. */
export const MAX_RIDER_FILE_LENGTH = 200_000
export const MAX_SETS = 24
export const MAX_LIMITS = 30

const text = (maxLength: number) => Type.String({ minLength: 1, maxLength })
const instant = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}:\\d{2}(\\.\\d{1,3})?Z$' })
/** An Ed25519 public key, 32 bytes in base64url (RFC 8037). */
export const KEY_PATTERN = '^[A-Za-z0-9_-]{43}$'
const keySchema = Type.String({ pattern: KEY_PATTERN })
const point = refTo<typeof pointSchema>('point')

/**
 * Numbers as contact points: seat point and grip in millimetres from the crank axle (x forward, y up), with what is
 * needed to find the same place on another bike. `marks` are the labels there, to be read and not to be used.
 */
export const carriedSetSchema = closed({
  id: text(64),
  type: text(80),
  purpose: oneOf(['usual', 'upright', 'starter', 'road']),
  certainty: oneOf(['told', 'translated', 'landmark', 'checked', 'measured']),
  at: instant,
  marks: closed({
    seatHeight: Type.Optional(text(12)),
    seatSlide: Type.Optional(text(12)),
    barHeight: Type.Optional(text(12)),
    barSlide: Type.Optional(text(12)),
  }),
  seat: point,
  grip: point,
  noseAheadMm: between(0, 400),
  crankMm: between(50, 300),
  pedalSurfaceMm: between(-50, 100),
  soleMm: Type.Optional(between(0, 80)),
  pedal: Type.Optional(oneOf(PEDAL_SIDES)),
})
export type CarriedSet = Plain<typeof carriedSetSchema>

/** A rider's own file: what they take from one studio to another, signed by the studio that measured. */
export const riderFileSchema = closed({
  format: Type.Literal(RIDER_FILE_FORMAT),
  formatVersion: Type.Literal(RIDER_FILE_VERSION),
  issuedAt: instant,
  studio: closed({ name: text(120), key: keySchema }),
  rider: closed({ name: text(120) }),
  sets: Type.Array(carriedSetSchema, { maxItems: MAX_SETS }),
  body: Type.Optional(bodyBeliefSchema),
  limits: Type.Optional(Type.Array(limitSchema, { maxItems: MAX_LIMITS })),
  /** The posture the rider wishes for. */
  wish: Type.Optional(oneOf(['upright', 'level', 'low'])),
  /**
   * Ed25519 (RFC 8032) over the canonical JSON (RFC 8785) of the file without this field, 64 bytes in base64url.
   */
  signature: Type.String({ pattern: '^[A-Za-z0-9_-]{86}$' }),
})
export type RiderFile = Plain<typeof riderFileSchema>
export type UnsignedRiderFile = Omit<RiderFile, 'signature'>

/** The four lengths of the tape at a set's contact points. */
export const lengthsOf = ({
  seat,
  grip,
  noseAheadMm,
}: Readonly<{ seat: Point; grip: Point; noseAheadMm: number }>): Lengths => ({
  saddleHeightMm: Math.hypot(seat.xMm, seat.yMm),
  setbackMm: -(seat.xMm + noseAheadMm),
  reachMm: grip.xMm - seat.xMm,
  stackMm: grip.yMm,
})

/** Files from before this are too old to be taken as measured, days: bodies, habits and shoes change. Assumption. */
export const MAX_AGE_DAYS = 730
/** A file may be dated so far ahead: clocks differ. */
const CLOCK_SKEW_MS = 3_600_000
const DAY_MS = 86_400_000

/** Why a file is taken only as numbers that somebody told. */
export type ToldReason = 'newer' | 'changed' | 'unknownStudio' | 'future' | 'old'
/** What a file is worth: `measured` by a studio that is known, or `told`. */
export type Standing = Readonly<{ standing: 'measured' }> | Readonly<{ standing: 'told'; why: ToldReason }>

export type StandingFacts = Readonly<{
  /** Of a later version of the format: what it says beyond this one is not read. */
  isNewer: boolean
  /** Whether the signature fits the key and the content. */
  isIntact: boolean
  /** Whether the key belongs to this studio or one it knows. */
  isKnown: boolean
  issuedAt: Date
  now: Date
}>

/** What a file is worth. What was changed is told before what is unknown or old. */
export function standingOf({ isNewer, isIntact, isKnown, issuedAt, now }: StandingFacts): Standing {
  const ageMs = now.getTime() - issuedAt.getTime()
  const told = (why: ToldReason): Standing => ({ standing: 'told', why })
  if (isNewer) return told('newer')
  if (!isIntact) return told('changed')
  if (!isKnown) return told('unknownStudio')
  // A date that is none counts as ahead.
  if (!(ageMs >= -CLOCK_SKEW_MS)) return told('future')
  if (ageMs > MAX_AGE_DAYS * DAY_MS) return told('old')
  return { standing: 'measured' }
}
