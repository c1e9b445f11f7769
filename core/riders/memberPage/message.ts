import type { Evidence } from '../evidence/registry'
import type { Lengths } from '../../bikes/bike/contactPoints'

/** What a member can report from their own page. */
export const MEMBER_MESSAGES = ['felt', 'recheck', 'home'] as const
export type MemberMessageKind = (typeof MEMBER_MESSAGES)[number]

/** Where something was felt; nowhere where all was well. */
export const FELT_PLACES = [
  'nowhere',
  'feet',
  'knees',
  'hips',
  'seat',
  'lowerBack',
  'hands',
  'shoulders',
  'neck',
] as const
export type FeltPlace = (typeof FELT_PLACES)[number]

/** 0 could not ride, 10 as if the bike were theirs. */
export type Felt = Readonly<{ comfort: number; place: FeltPlace; line: string }>

/** What was answered and measured at home, as rows a set-up begins with; and their own bike by its tape. */
export type HomeMeasures = Readonly<{
  evidence: readonly Evidence[]
  ownBike?: Readonly<{ lengths: Lengths; crankMm: number; noseAheadMm: number }>
}>

export type MemberMessageBody = Felt | Readonly<{ line: string }> | HomeMeasures

/** Letters of the one line. */
export const MAX_LINE_LENGTH = 200

/** One line as stored: control characters are left out, one kind of space. */
export const oneLine = (typed: unknown): string =>
  (typeof typed === 'string' ? typed : '')
    .replace(/\p{C}/gu, ' ')
    .replace(/\s+/gu, ' ')
    .trim()
    .slice(0, MAX_LINE_LENGTH)

/** What was felt, where it is that; null where it is not. */
export function feltFrom(sent: unknown): Felt | null {
  const { comfort, place, line } = (sent ?? {}) as Record<string, unknown>
  const listed = FELT_PLACES.find((one) => one === place)
  if (!listed || !Number.isInteger(comfort) || (comfort as number) < 0 || (comfort as number) > 10) return null
  return { comfort: comfort as number, place: listed, line: oneLine(line) }
}

/**
 * Minutes at the bike: of somebody nobody knows, who measured at home, who brought their own bike's tape. Common
 * practice, no source.
 */
export const MINUTES_AT_THE_BIKE = Object.freeze({ unknown: 6, measured: 4, taped: 3 })
