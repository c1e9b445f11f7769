import { LRUCache } from 'lru-cache'
import { Type } from '@sinclair/typebox'
import { bikeRef, bikeTypeRef } from '../../bikes/bike/bike'
import { axisPositions, contactPoints } from '../../bikes/bike/contactPoints'
import { positionsOf } from '../../bikes/scale/scale'
import { movedAxes, type AxisName, type Label, type Marks } from '../../base/conventions'
import { closed, refTo, type Plain } from '../../base/schema'
import { schoolOf, schoolSchema, type School } from '../../base/school/school'
import type { LandmarkAtMark } from '../../riders/evidence/definition/landmarks'
import { latest } from '../../riders/evidence/evidence'
import type { Evidence, evidenceSchema } from '../../riders/evidence/registry'
import { priorSchema } from '../../riders/rider/prior'
import { schoolOn } from '../recommend/knowledge/schoolOn'
import { advise, type Advice } from '../recommend/recommend'
import type { Move } from '../recommend/request/request'

/**
 * Request of `alone`: the rows that riders gave of themselves so far, in order, readings with `readBy: 'rider'`; each
 * `set` row says that the machine was set to the marks of the step before.
 */
export const aloneSchema = closed({
  bikeType: bikeTypeRef,
  bike: Type.Optional(bikeRef),
  school: Type.Optional(schoolSchema),
  evidence: Type.Array(refTo<typeof evidenceSchema>('evidence'), { maxItems: 60 }),
  seed: Type.Optional(Type.Integer({ minimum: -2147483648, maximum: 2147483647 })),
  samples: Type.Optional(Type.Integer({ minimum: 200, maximum: 50000 })),
  prior: Type.Optional(priorSchema),
})
export type AloneRequest = Plain<typeof aloneSchema>

/** What a rider alone is asked on the machine, in this order. */
export const OWN_CHECKS = ['forearm', 'heel', 'knee', 'lookDown', 'elbows'] as const
export type OwnCheck = (typeof OWN_CHECKS)[number]

type SettingWhy = 'low' | 'yours' | 'better'

/** The next step of a rider alone at a machine. */
export type AloneStep =
  /** New or not, and the pedal's side. */
  | Readonly<{ kind: 'talk' }>
  /** The saddle's top is levelled with this landmark, and its mark is read. */
  | Readonly<{ kind: 'landmark'; landmark: LandmarkAtMark }>
  /**
   * The machine is set, the rider off it. `low`: too low on purpose, to feel it first and to get on and off; `yours`:
   * what suits; `better`: what the checks changed. `yours`: what suits by all that is known now.
   */
  | Readonly<{ kind: 'set'; why: SettingWhy; marks: Marks; yours: Marks; moves: readonly Move[] }>
  | Readonly<{ kind: OwnCheck }>
  /** `cannotFit`: a scale ends before this rider does, so that an instructor has to see. */
  | Readonly<{ kind: 'end'; marks: Marks; cannotFit: boolean }>

/** Too low by about so much is felt at once and is no strain for some turns, mm. Ours. */
const LOW_MM = 45
/** Less than this is hardly felt, mm. Ours. */
const LOW_LEAST_MM = 25
/** Changes after a first mount, and marks a change moves an axis: a mark or two a ride (common practice, no source). */
const MAX_CHANGES = 2
const MAX_MARKS = 2

/** Landmarks that need a tape or a stick are replaced: nobody alone has one. */
const landmarkOf = ({ startLandmark }: School): LandmarkAtMark =>
  startLandmark === 'factor0883' || startLandmark === 'percent109' || startLandmark === 'heelLength'
    ? 'hipCrest'
    : startLandmark

/** What a rider alone does next, with the belief it rests on (null before anything was read). Pure. */
export function alone(request: AloneRequest): Readonly<{ step: AloneStep; advice: Advice | null }> {
  const { bikeType, evidence } = request
  const school = schoolOf(request.school)
  if (!latest(evidence, 'rider')) return { step: { kind: 'talk' }, advice: null }
  if (!latest(evidence, 'landmarkAtMark'))
    return { step: { kind: 'landmark', landmark: landmarkOf(school) }, advice: null }
  const advice = advise(request)
  const visit = visitOf(request, advice)
  const stands = visit.stands ?? {}
  const proposed = underCeiling(request, proposedMarks(advice))
  const toSet = (why: 'low' | 'yours' | 'better', marks: Marks): AloneStep => ({
    kind: 'set',
    why,
    marks,
    yours: proposed,
    moves: movesBetween(bikeType, stands, marks),
  })
  if (visit.phase === 'start') return { step: visit.low ? toSet('low', visit.low) : toSet('yours', proposed), advice }
  if (visit.phase === 'low') {
    if (!visit.since.some(({ kind }) => kind === 'heelCheck')) return { step: { kind: 'heel' }, advice }
    if (differs(stands, proposed)) return { step: toSet('yours', proposed), advice }
  }
  const open = openCheck(request, visit, school)
  // The forearm is held beside the machine: what it changes costs no dismount.
  if (open === 'forearm') return { step: { kind: open }, advice }
  const isMounted = visit.since.some(({ kind }) => ON_MACHINE.includes(kind))
  if (!isMounted && differs(stands, proposed)) return { step: toSet('better', proposed), advice }
  if (open) return { step: { kind: open }, advice }
  const better = betterMarks(request, advice, visit)
  if (better) return { step: toSet('better', better), advice }
  return { step: { kind: 'end', marks: stands, cannotFit: advice.next.kind === 'outOfRange' }, advice }
}

/** How far a visit is: nothing set, too low on purpose, or at what suits; `since`: the rows from that setting on. */
type Visit = Readonly<{
  phase: 'start' | 'low' | 'yours'
  /** Too low on purpose; null where it is not shown. */
  low: Marks | null
  stands: Marks | null
  since: readonly Evidence[]
}>

function visitOf(request: AloneRequest, advice: Advice): Visit {
  const { evidence } = request
  const first = evidence.findIndex(({ kind }) => kind === 'set')
  const begun = first < 0 ? proposedMarks(advice) : begunMarks({ ...request, evidence: evidence.slice(0, first) })
  const low = lowMarks(request, begun)
  if (first < 0) return { phase: 'start', low, stands: null, since: [] }
  const isLow = low !== null && !differs(evidence[first].at ?? {}, low)
  const second = evidence.findIndex(({ kind }, i) => kind === 'set' && i > first)
  const from = isLow && second >= 0 ? second : first
  const stands = evidence.findLast(({ kind }) => kind === 'set')!.at ?? {}
  return { phase: isLow && second < 0 ? 'low' : 'yours', low, stands, since: evidence.slice(from) }
}

/** What suited before anything was set, by request: every later step of a visit needs the same. */
const begunCache = new LRUCache<string, Marks>({ max: 50 })

function begunMarks(request: AloneRequest): Marks {
  const key = JSON.stringify(request)
  const marks = begunCache.get(key) ?? proposedMarks(advise(request))
  begunCache.set(key, marks)
  return marks
}

/** What moves the saddle toward or away from the pedals. */
const HEIGHTS: readonly AxisName[] = ['seatHeight', 'frameHeight', 'seatExtra', 'crankLength']
/** Checks on the machine, each with the row that answers it and the axes whose move asks it again. */
const CHECK: Readonly<Record<OwnCheck, Readonly<{ kind: Evidence['kind']; axes: readonly AxisName[] }>>> = {
  forearm: { kind: 'forearmGauge', axes: [] },
  heel: { kind: 'heelCheck', axes: HEIGHTS },
  knee: { kind: 'kneeByEye', axes: HEIGHTS },
  lookDown: { kind: 'plumbByEye', axes: ['seatSlide', 'frameSlide', 'seatExtra', 'crankLength'] },
  elbows: { kind: 'elbows', axes: ['barHeight', 'barSlide', 'barExtra', 'barTurn'] },
}
const ON_MACHINE: readonly Evidence['kind'][] = ['heelCheck', 'kneeByEye', 'plumbByEye', 'elbows']

/** The first check that was not made since its axes moved; null where all were. */
function openCheck({ bikeType, evidence }: AloneRequest, visit: Visit, school: School): OwnCheck | null {
  const stands = visit.stands ?? {}
  const isMounted = visit.since.some(({ kind }) => ON_MACHINE.includes(kind))
  const isOpen = (check: OwnCheck): boolean => {
    const { kind, axes } = CHECK[check]
    if (check === 'forearm' && (!bikeType.forearmGaugeValid || isMounted)) return false
    if (check === 'lookDown' && schoolOn(bikeType, school).foreAft === 'unused') return false
    const at = evidence.findLastIndex((row) => row.kind === kind)
    if (at < 0) return true
    const then = evidence.slice(0, at).findLast((row) => row.kind === 'set')?.at ?? {}
    return axes.some((axis) => then[axis] !== stands[axis])
  }
  return OWN_CHECKS.find(isOpen) ?? null
}

/** Where the advice leads: its marks with its moves. */
const proposedMarks = ({ marks, next }: Advice): Marks => ({
  ...marks,
  ...Object.fromEntries(next.moves.map(({ axis, to }) => [axis, to])),
})

const differs = (stands: Marks, marks: Marks): boolean => movedAxes(stands, marks).length > 0

/** The same marks with the seat some 45 mm lower; null where the scale has none, or for who knows how it feels. */
function lowMarks({ bikeType, bike, evidence }: AloneRequest, marks: Marks): Marks | null {
  if (latest(evidence, 'rider')?.experience === 'experienced') return null
  const yMm = (seatHeight: Label) =>
    contactPoints(bikeType, bike, axisPositions(bikeType, { ...marks, seatHeight })).seat.yMm
  const here = yMm(marks.seatHeight!)
  const lower = positionsOf(bikeType.axes.seatHeight.scale)
    .map(({ label }) => ({ label, byMm: here - yMm(label) }))
    .filter(({ byMm }) => byMm >= LOW_LEAST_MM)
  if (lower.length === 0) return null
  const { label } = lower.reduce((a, b) => (Math.abs(b.byMm - LOW_MM) < Math.abs(a.byMm - LOW_MM) ? b : a))
  return { ...marks, seatHeight: label }
}

/**
 * What the checks would change, a mark or two of an axis, under the ceiling; null where nothing is worth another
 * dismount, or after two changes.
 */
function betterMarks(request: AloneRequest, { next }: Advice, visit: Visit): Marks | null {
  const { bikeType, evidence } = request
  const stands = visit.stands ?? {}
  // The knee is looked at first where the seat suits, not where it is too low on purpose.
  const from = evidence.findIndex(({ kind }) => kind === 'kneeByEye')
  const changes = evidence.slice(from).filter(({ kind }) => kind === 'set').length
  if (changes >= MAX_CHANGES || (next.kind !== 'change' && next.kind !== 'outOfRange')) return null
  const reached = next.moves.map(({ axis, to }): [AxisName, Label] => {
    const labels = positionsOf(bikeType.axes[axis]!.scale).map(({ label }) => label)
    const here = labels.indexOf(stands[axis]!)
    return [axis, labels[here + Math.max(-MAX_MARKS, Math.min(MAX_MARKS, labels.indexOf(to) - here))]]
  })
  const better: Marks = { ...stands, ...Object.fromEntries(reached) }
  const allowed = underCeiling(request, better)
  return differs(stands, allowed) ? allowed : null
}

/**
 * The same marks with the seat no higher than where the knee was felt locked, nor, with a heel that is a ceiling, than
 * where the heel did not reach. With the foot as riders carry it, heel up, the heel reaches some 20 mm below the height
 * that suits the knee: there it is evidence, and no ceiling (decision 35).
 */
function underCeiling({ bikeType, bike, evidence, school: chosen }: AloneRequest, marks: Marks): Marks {
  const { heelCheck, foot } = schoolOf(chosen)
  const heelIsCeiling = heelCheck === 'ceiling' || heelCheck === 'target' || foot === 'level'
  const isTooHigh = (row: Evidence) =>
    (row.kind === 'kneeByEye' && row.seen === 'locked') ||
    (heelIsCeiling && row.kind === 'heelCheck' && row.seen === 'cannotReach')
  const yMm = (at: Marks) => contactPoints(bikeType, bike, axisPositions(bikeType, at)).seat.yMm
  let stands: Marks = {}
  let allowed = marks
  for (const row of evidence) {
    if (row.kind === 'set') stands = row.at ?? stands
    if (isTooHigh(row) && yMm(allowed) > yMm(stands) + 1) allowed = { ...allowed, seatHeight: stands.seatHeight }
  }
  return allowed
}

function movesBetween(bikeType: AloneRequest['bikeType'], from: Marks, to: Marks): Move[] {
  return (Object.keys(bikeType.axes) as AxisName[]).flatMap((axis) => {
    const positions = positionsOf(bikeType.axes[axis]!.scale)
    const [now, then] = [from[axis], to[axis]].map((label) => positions.find((one) => one.label === label))
    if (!then || now?.label === then.label) return []
    return [{ axis, ...(now && { from: now.label }), to: then.label, mm: now ? then.mm - now.mm : 0 }]
  })
}
