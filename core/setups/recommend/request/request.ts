import { Type } from '@sinclair/typebox'
import { bikeRef, bikeTypeRef } from '../../../bikes/bike/bike'
import type { AxisName, Label } from '../../../base/conventions'
import { observerSchema } from '../../../riders/evidence/definition/defineKind'
import type { MeantReason } from '../../../riders/evidence/kinds/onBike/set'
import type { BarEnd, BarWhy } from '../bars/barSituation'
import type { BarPosture } from '../../../base/school/barPosture'
import type { evidenceSchema } from '../../../riders/evidence/registry'
import { priorSchema } from '../../../riders/rider/prior'
import { costsSchema } from './questionCosts'
import { carriedBodySchema, earlierSetupSchema } from '../history/riderHistory'
import { between, closed, oneOf, refTo, type Plain } from '../../../base/schema'
import { schoolSchema } from '../../../base/school/school'
import { UNIT_SYSTEMS } from '../../../base/length'

/** Request of `recommend`. Evidence in time order; `prior` replaces single parts of the default prior. */
export const recommendSchema = closed({
  bikeType: bikeTypeRef,
  bike: Type.Optional(bikeRef),
  school: Type.Optional(schoolSchema),
  /** Earlier set-ups of the same rider, on any type. */
  history: Type.Optional(Type.Array(earlierSetupSchema, { maxItems: 20 })),
  /** What another studio believed of the body of the rider; the history comes after it. */
  body: Type.Optional(carriedBodySchema),
  /** How the eye strays that looks now. */
  observer: Type.Optional(observerSchema),
  /** Durations of checks, seconds, that differ from the defaults. */
  costs: Type.Optional(costsSchema),
  /**
   * What a rider's limits change: bars up for health, low by default for a road habit; each knee for itself where a leg
   * is shorter; the seat point where they sit, mm ahead of the saddle's middle.
   */
  limits: Type.Optional(
    closed({
      upright: Type.Optional(oneOf(['heart', 'operation', 'pregnant'])),
      rides: Type.Optional(oneOf(['none', 'upright', 'roadLow'])),
      shorterLeg: Type.Optional(closed({ side: oneOf(['left', 'right']), mm: between(1, 60) })),
      sitsAtMm: Type.Optional(between(-60, 60)),
      /** How much higher the rider sits on their own saddle or cover, mm. */
      ownSaddleMm: Type.Optional(between(-60, 60)),
    }),
  ),
  evidence: Type.Array(refTo<typeof evidenceSchema>('evidence'), { maxItems: 500 }),
  /** The studio's other types, of which one is offered where this bike ends. */
  otherTypes: Type.Optional(Type.Array(bikeTypeRef, { maxItems: 12 })),
  seed: Type.Optional(Type.Integer({ minimum: -2147483648, maximum: 2147483647 })),
  samples: Type.Optional(Type.Integer({ minimum: 200, maximum: 50000 })),
  prior: Type.Optional(priorSchema),
  /** How lengths are written in the sentences; the figures beside them stay millimetres. */
  lengths: Type.Optional(oneOf(UNIT_SYSTEMS)),
})
export type RecommendRequest = Plain<typeof recommendSchema>

export type Check = 'kneeFlexion' | 'heel' | 'plumb' | 'reach' | 'barAgainstSaddle' | 'clearance'

/** A move of one axis to a mark; mm is signed along the axis, 0 where it stays or its position is unknown. */
export type Move = Readonly<{ axis: AxisName; from?: Label; to: Label; mm: number }>

/** What a check is expected to read after the moves, in its own unit (degrees, or mm). */
export type Expectation = Readonly<{ check: Check; from?: number; to: number; spread: number; unit: 'deg' | 'mm' }>

/** The chance that the true value of this axis' own check lies in its window with the axis at this mark. */
export type MarkChance = Readonly<{ label: Label; mm: number; chance: number }>

/** Shorter cranks, and what they do: the knee at the top before and after, and how much higher the seat then goes. */
export type CrankReason = Readonly<{
  code: 'shorterCranks'
  fromMm: number
  toMm: number
  topDeg: number
  thenDeg: number
  seatMm: number
}>

/** What the next step rests on, as a code with its figures; sentences are made of these in `words`. */
export type Reason =
  /** Chance that both saddle checks pass at this height and slide. */
  | Readonly<{ code: 'chance'; height: Label; slide: Label; chance: number }>
  | Readonly<{ code: 'noEvidence' }>
  /** The evidence conflicts so much that the sampler ran out of rounds: the chances are rough. */
  | Readonly<{ code: 'notSettled' }>
  /** `at`: the seat height of the reading, where it differs from the current one. */
  | Readonly<{ code: 'lastReading'; check: 'kneeFlexion'; deg: number; inWindow: boolean; at?: Label }>
  | Readonly<{ code: 'lastReading'; check: 'plumb'; mm: number; inWindow: boolean }>
  | Readonly<{ code: 'seenByEye'; seen: 'locked' | 'slightBend' | 'deepBend' }>
  | Readonly<{ code: 'heelSeen'; seen: 'justStraight' | 'stillBent' | 'cannotReach'; decides: boolean }>
  /** Height and slide together make the seat this much higher (plus) or lower for the leg. */
  | Readonly<{ code: 'vernier'; heightMm: number }>
  | Readonly<{ code: 'plumbSeen'; seen: 'behindAnkle' | 'midFoot' | 'overAxle' | 'aheadOfAxle' | 'pastToes' }>
  | Readonly<{ code: 'slideForPedals'; plumbMm: number }>
  | Readonly<{ code: 'noBetterMark'; gain: number }>
  | Readonly<{ code: 'reachChanges'; mm: number }>
  /** A measured shorter leg; `deg`: by how much less its knee bends. */
  | Readonly<{ code: 'shorterLeg'; side: 'left' | 'right'; mm: number; deg: number }>
  | Readonly<{ code: 'sitsAt'; mm: number }>
  /** Everything holds with their own saddle or cover on, so much higher than the bike's. */
  | Readonly<{ code: 'ownSaddle'; mm: number }>
  /** Number of earlier set-ups in the prior, and the days since the latest. */
  | Readonly<{ code: 'history'; setups: number; agoDays: number }>
  /** Another studio's belief in the prior, so many days old. */
  | Readonly<{ code: 'carriedBody'; agoDays: number }>
  /** Chance that both bar checks pass at these marks. */
  | Readonly<{ code: 'barChance'; height: Label; slide?: Label; chance: number }>
  /** Evidence about the bars at their current marks. */
  | Readonly<{
      code: 'barsSeen'
      elbows?: 'locked' | 'soft' | 'cramped'
      feel?: 'stretched' | 'right' | 'cramped'
      clearance?: 'clear' | 'touches'
    }>
  /** The height of the bars lies outside its window. */
  | Readonly<{ code: 'barHeightRule'; posture: BarPosture }>
  /** Before another type: whether the saddle is only too far back. */
  | Readonly<{ code: 'slideFirst' }>
  /** Further adjustments moved because the common four alone serve this rider less; by how much, in the chance. */
  | Readonly<{ code: 'further'; axes: readonly AxisName[]; gain: number }>
  | CrankReason
  /** The marks are on purpose, and why. */
  | Readonly<{ code: 'meant'; why: MeantReason }>

/** What to do next: the kind, the marks, what the checks should read then, which checks are open, and why. */
export type Next = Readonly<{
  kind: 'start' | 'change' | 'stop' | 'outOfRange'
  moves: readonly Move[]
  expect: readonly Expectation[]
  checks: readonly Check[]
  reasons: readonly Reason[]
  /** A scale that ended: its nearest mark, the target position and the distance to it. */
  scaleEnd?: Readonly<{
    axis: 'seatHeight' | 'seatSlide'
    end: 'top' | 'bottom' | 'rear' | 'front'
    nearest: Label
    wantedMm: number
    missingMm: number
  }>
  /** The readings here contradict each other: they are taken again before anything is changed. */
  readAgain?: true
  /** The marks are on purpose: nothing is changed. */
  meant?: MeantReason
  /** The saddle is moved for the reach, as this school looks there first. */
  forReach?: true
  /** Why the bars are moved, or left as they are. */
  barsWhy?: BarWhy
  /** No mark of this bike's bars puts right what was seen. */
  barsEnd?: BarEnd
  /** The bars pass by the rider; their height minus the target of the rule, mm. */
  barsDisagreeMm?: number
  /** The chance at the marks of a stop, where it is too small to be called right. */
  smallChance?: number
}>
