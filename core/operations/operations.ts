import { axesOf, type Bike, type BikeType } from '../bike/bike'
import { placeAt, positionsOf } from '../bike/place'
import { calibrate, type Fitted, type Refused, type Suspect } from '../calibration/calibrate'
import { nextReading, type NextReading } from '../calibration/nextReading'
import type { Stray } from '../calibration/parameters'
import type { TapeReading } from '../calibration/readings'
import type { Slip } from '../calibration/slips'
import type { AxisName, Marks } from '../conventions'
import { isSaddleCheck, latest, needsMarks, UNBUILT_KINDS, type Evidence } from '../evidence/evidence'
import { poseAt, type Contact, type Pose, type Rider } from '../linkage/pose'
import { recommend, type Advice } from '../recommend/recommend'
import type { FitRequest } from '../recommend/request'
import { calibrationRefusedSaid, nextReadingSaid, slipSaid, straySaid, suspectSaid } from '../words/tape'
import { say, type Said } from '../words/say'
import { bikeFaults, bikeTypeFaults, marksFaults, canonicalMarks } from './bikeFaults'
import { costFaults } from './cost'
import { faultAnswer, faultsOf, withoutRepeats, type Fault, type FaultAnswer } from './faults'
import { sizeFaults } from './sizeFaults'
import * as generated from './validators.generated.cjs'

export type PlaceRequest = Readonly<{ bikeType: BikeType; bike?: Bike; marks: Marks }>
export type PoseRequest = Readonly<{
  rider: Rider
  contact: Contact
  crankMm: number
  pedalSurfaceMm: number
  crankDeg: readonly number[]
}>

/** `recommend`'s answer: the advice in codes and figures, with finished English beside it. */
export type Recommendation = Readonly<{
  chances: Advice['chances']
  next: Advice['next'] & Readonly<{ sentence: string; because: string[] }>
  belief: Advice['belief']
  cautions: string[]
  /** Marks everything was computed at. */
  marks: Marks
  bars: Advice['bars'] & Readonly<{ sentence: string }>
  doubts: readonly (Advice['doubts'][number] & Readonly<{ say: string }>)[]
}>

export type CalibrateRequest = Readonly<{ bikeType: BikeType; readings: readonly TapeReading[] }>

type WithWhy<T> = readonly (T & Readonly<{ why: string }>)[]

/**
 * `calibrate`'s answer: the fit with a sentence for each suspect and each part that strays from the guess, or why not;
 * what all readings may have in common; either way where to measure next.
 */
export type CalibrateAnswer = (
  | (Omit<Fitted, 'suspects' | 'strays' | 'slips'> & Readonly<{ suspects: WithWhy<Suspect>; strays: WithWhy<Stray> }>)
  | (Refused & Readonly<{ say: string }>)
) &
  Readonly<{ slips: WithWhy<Slip>; next: NextReading & Readonly<{ sentence: string }> }>

export type PlaceAnswer = ReturnType<typeof placeAt> & Readonly<{ assumed: AxisName[] }>
export type PoseAnswer = Readonly<{ poses: Pose[] }>

/** Requests checked beyond their schema, then answered. `faults` sees only what the schema let through. */
type Operation = Readonly<{
  validate: typeof generated.place
  faults: (request: never) => Fault[]
  answer: (request: never) => object
}>

const OPERATIONS: Readonly<Record<string, Operation>> = {
  place: { validate: generated.place, faults: placeFaults, answer: place },
  pose: { validate: generated.pose, faults: () => [], answer: pose },
  calibrate: { validate: generated.calibrate, faults: calibrateFaults, answer: calibration },
  recommend: { validate: generated.recommend, faults: recommendFaults, answer: fit },
}
export const OPERATION_NAMES = Object.keys(OPERATIONS)

/**
 * The one door of the core: checks a request and answers it. Faults come back as a value with every fault found;
 * a throw is a bug. The same door serves route handlers, workers, server actions and the command line.
 */
export function run(operation: string, request: unknown): object | FaultAnswer {
  const found = Object.hasOwn(OPERATIONS, operation) ? OPERATIONS[operation] : undefined
  if (!found)
    return faultAnswer('unknownOperation', [
      { pointer: '', reason: `there is no operation ${operation}; there are ${OPERATION_NAMES.join(', ')}` },
    ])
  const faults = requestFaults(operation, request)
  return faults.length > 0 ? faultAnswer('badRequest', withoutRepeats(faults)) : found.answer(request as never)
}

/** What is wrong with a request of a known operation, without answering it. */
export function requestFaults(name: string, request: unknown): Fault[] {
  const { validate, faults } = OPERATIONS[name]
  const tooLarge = sizeFaults(name, request)
  if (tooLarge.length > 0) return tooLarge
  const costly = costFaults(name, request)
  if (costly.length > 0) return costly
  return validate(request) ? faults(request as never) : [...unbuiltKinds(request), ...faultsOf(validate.errors ?? [])]
}

export const isFault = (answer: object): answer is FaultAnswer => 'error' in answer

/** Faults of one row of evidence alone, for the door of the database. */
export function evidenceFaults(row: unknown): Fault[] {
  const tooLarge = sizeFaults('evidence', row)
  if (tooLarge.length > 0) return tooLarge
  return generated.evidence(row) ? [] : withoutRepeats(faultsOf(generated.evidence.errors ?? []))
}

/** `place`: seat, nose, grip and the tape's four lengths; axes left out count as 0 mm and are named. */
export function place({ bikeType, bike, marks }: PlaceRequest): PlaceAnswer {
  const { positions } = positionsOf(bikeType, marks)
  return {
    ...placeAt(bikeType, bike, positions),
    assumed: axesOf(bikeType).filter((name) => marks[name] === undefined),
  }
}

/** `pose`: the rider on given contact points at each crank angle asked for. */
export function pose({ rider, contact, crankMm, pedalSurfaceMm, crankDeg }: PoseRequest): PoseAnswer {
  return { poses: crankDeg.map((deg) => poseAt(rider, contact, { crankMm, pedalSurfaceMm }, deg)) }
}

/** `calibrate`: a type's geometry from tape readings, the readings that do not belong, and where to measure next. */
export function calibration({ bikeType, readings }: CalibrateRequest): CalibrateAnswer {
  const answer = calibrate(bikeType, readings)
  const proposed = nextReading(bikeType, readings)
  const next = { ...proposed, sentence: nextReadingSaid(bikeType, proposed.marks) }
  const slips = (answer.slips ?? []).map((slip) => ({ ...slip, why: slipSaid(bikeType, slip) }))
  if (answer.outcome === 'refused') return { ...answer, say: calibrationRefusedSaid(bikeType, answer), slips, next }
  const suspects = answer.suspects.map((suspect) => ({ ...suspect, why: suspectSaid(bikeType, readings, suspect) }))
  const strays = answer.strays.map((stray) => ({ ...stray, why: straySaid(stray) }))
  return { ...answer, suspects, strays, slips, next }
}

/** `recommend`: the next best step with its chances, in figures and in words. */
export function fit(request: FitRequest): Recommendation {
  const { bikeType } = request
  const evidence = request.evidence.map((row) => (row.at ? { ...row, at: canonicalMarks(bikeType, row.at) } : row))
  const advice = recommend({ ...request, evidence })
  const said: Said = say(bikeType, evidence, advice, request.lengths)
  return {
    chances: advice.chances,
    next: { ...advice.next, sentence: said.sentence, because: said.because },
    belief: advice.belief,
    cautions: said.cautions,
    marks: advice.marks,
    bars: { ...advice.bars, sentence: said.bars },
    doubts: advice.doubts.map((doubt, i) => ({ ...doubt, say: said.doubts[i] })),
  }
}

function calibrateFaults({ bikeType, readings }: CalibrateRequest): Fault[] {
  return [
    ...bikeTypeFaults(bikeType, '/bikeType'),
    ...readings.flatMap(({ marks }, i) => marksFaults(bikeType, marks, `/readings/${i}/marks`)),
  ]
}

function placeFaults({ bikeType, bike, marks }: PlaceRequest): Fault[] {
  return [
    ...bikeTypeFaults(bikeType, '/bikeType'),
    ...bikeFaults(bikeType, bike, '/bike'),
    ...marksFaults(bikeType, marks, '/marks'),
  ]
}

function recommendFaults({ bikeType, bike, school, evidence }: FitRequest): Fault[] {
  const scales = bikeTypeFaults(bikeType, '/bikeType')
  if (scales.length > 0) return scales
  const window = school?.kneeWindowDeg
  const schoolFaults =
    window && window[0] > window[1]
      ? [{ pointer: '/school/kneeWindowDeg', reason: 'its first angle must not exceed its second' }]
      : []
  const rows = evidence.flatMap((row, i) => [
    ...marksFaults(bikeType, row.at, `/evidence/${i}/at`),
    ...rowFaults(evidence, i),
  ])
  return [...bikeFaults(bikeType, bike, '/bike'), ...schoolFaults, ...rows]
}

function rowFaults(evidence: readonly Evidence[], i: number): Fault[] {
  const row = evidence[i]
  if (needsMarks(row) && row.at?.seatHeight === undefined)
    return [
      {
        pointer: `/evidence/${i}/at`,
        reason: `${isSaddleCheck(row) ? 'a check on the bike' : 'a landmark at a mark'} needs the seat height it was taken at`,
      },
    ]
  const stature = latest(evidence, 'stature')
  if (row.kind === 'inseam' && stature && row.mm >= stature.mm)
    return [{ pointer: `/evidence/${i}/mm`, reason: 'an inseam cannot be as long as the whole body' }]
  return []
}

/** Kinds of the wire format that are not built yet, refused by name. */
function unbuiltKinds(request: unknown): Fault[] {
  const rows = (request as { evidence?: unknown } | null)?.evidence
  if (!Array.isArray(rows)) return []
  return rows.flatMap((row: { kind?: unknown } | null, i) =>
    typeof row?.kind === 'string' && UNBUILT_KINDS.includes(row.kind)
      ? [{ pointer: `/evidence/${i}/kind`, reason: `evidence of kind ${row.kind} is not built yet` }]
      : [],
  )
}
