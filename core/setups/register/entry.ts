import type { PedalSide } from '../../bikes/bike/bike'
import type { EvidenceKind } from '../../riders/evidence/registry'
import type { MarkMove } from '../moves/move'

/** Purposes of numbers: a rider may have several sets on one type. */
export const PURPOSES = ['usual', 'upright', 'starter', 'road'] as const
export type Purpose = (typeof PURPOSES)[number]

/** How numbers came into the register. */
export const SOURCES = [
  'setUp',
  'restored',
  'translated',
  'tape',
  'change',
  'imported',
  'trial',
  'moved',
  'carried',
] as const
export type Source = (typeof SOURCES)[number]

/** How sure numbers are, the least first. */
export const CERTAINTIES = ['told', 'translated', 'landmark', 'checked', 'measured'] as const
export type Certainty = (typeof CERTAINTIES)[number]

/** What changed about a rider's shoes or a bike, with its millimetres; signs in `changedContact`. */
export const CHANGES = ['shoes', 'cleats', 'saddle', 'gelCover', 'postSlipped'] as const
export type Change = (typeof CHANGES)[number]

/** What a set of numbers rests on, as codes; sentences are made of them in `messages/register`. */
export type Basis = Readonly<{
  /** Kinds of evidence looked at in the set-up. */
  seen?: readonly EvidenceKind[]
  change?: Readonly<{ what: Change; mm: number }>
  /** The type they were translated from. */
  fromType?: string
  note?: string
  /** The rider's own file they came by: who measured, and their id there. */
  carried?: Readonly<{ studio: string; setId: string }>
  /** The mark that was moved between two set-ups, and why. */
  moved?: MarkMove
}>

/** What the rider wore and rode on. */
export type Footwear = Readonly<{ soleMm?: number; pedal?: PedalSide }>
