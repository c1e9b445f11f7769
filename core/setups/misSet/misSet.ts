import { axesOf, axisOf, type Bike, type BikeType } from '../../bikes/bike/bike'
import { AXES, LEG_AXES, SEAT_AXES, type AxisName } from '../../base/adjustments'
import { agreeOn, type Label, type Marks } from '../../base/conventions'
import type { Observer } from '../../riders/evidence/definition/defineKind'
import { isSaddleCheck } from '../../riders/evidence/evidence'
import type { Evidence } from '../../riders/evidence/registry'
import { logLikelihoods } from '../../riders/inference/likelihood'
import { samplePosterior } from '../../riders/inference/posterior'
import type { Particles } from '../../riders/inference/particles'
import { readSetup } from '../recommend/history/setupReadings'
import { earlierSdMm, priorFromHistory, type EarlierSetup } from '../recommend/history/riderHistory'
import { DEFAULT_SOLE_MM } from '../../riders/rider/anthropometry'
import { priorFor, priorVectorOf, type Prior } from '../../riders/rider/prior'
import { findPosition, positionsOf } from '../../bikes/scale/scale'
import { schoolOf, type School } from '../../base/school/school'

/** What may have happened where a bike does not agree with what is seen. */
export type MisSetCause =
  /** Nothing: what is seen is what this rider shows at these marks. */
  | Readonly<{ code: 'asSet' }>
  /** The bike is set a mark away from its reading: `truly` is the true mark. */
  | Readonly<{ code: 'offByOne'; axis: AxisName; truly: Label }>
  /** Two numbers were exchanged. */
  | Readonly<{ code: 'swapped'; axes: readonly [AxisName, AxisName]; truly: Marks }>
  /** It was set to the numbers of another type. */
  | Readonly<{ code: 'otherType'; type: string; truly: Marks }>
  /** The post is lower than its mark. */
  | Readonly<{ code: 'postSlipped'; mm: number }>
  /** The sole differs from the one entered; plus is thicker. */
  | Readonly<{ code: 'otherShoe'; mm: number }>

/** A cause with the chance that it is the one, of all that are looked at. */
export type RankedCause = MisSetCause & Readonly<{ chance: number }>

export type MisSetQuestion = Readonly<{
  bikeType: BikeType
  bike?: Bike
  /** The rider's numbers, as they were meant to be set. */
  marks: Marks
  /** The rider's numbers on other types. */
  elsewhere?: readonly Readonly<{ type: string; marks: Marks }>[]
  /** Prior of the rider from earlier set-ups. */
  history: readonly EarlierSetup[]
  /** What is seen now, at the marks it is thought to be seen at. */
  evidence: readonly Evidence[]
  school?: Partial<School>
  /** Whose eye looks now. */
  observer?: Observer
  prior?: Partial<Prior>
  seed?: number
}>

/**
 * How often each happens before anything is seen: of a hundred bikes that are set by numbers. Ours; no source. Each is
 * shared out among its variants.
 */
export const CAUSE_SHARE = Object.freeze({
  asSet: 0.6,
  offByOne: 0.16,
  swapped: 0.05,
  otherType: 0.05,
  postSlipped: 0.08,
  otherShoe: 0.06,
})

/** Lengths by which posts slip and soles differ, mm, equally likely; ours. */
export const SLIPS_MM = [8, 12, 16, 20, 28, 36] as const
export const SOLES_MM = [-12, -8, 8, 12] as const

const PARTICLES = 3000

/**
 * The probable slips, most probable first, with chances that add to 1: Bayes' rule over the causes, with the marginal
 * likelihood of the evidence averaged over samples of the rider's prior (Kass & Raftery 1995, from memory). Variants of
 * one cause are summed under the most probable one.
 */
export function rankMisSets(question: MisSetQuestion): RankedCause[] {
  const { bikeType, bike, evidence, history, observer, seed = 1 } = question
  const school = schoolOf(question.school)
  const prior = priorVectorOf(priorFor(school.foot, question.prior))
  const carriedPrior = priorFromHistory({ history, school, prior, seed })
  const { footing } = readSetup({ bikeType, bike, evidence }, school, observer)
  const inputs = { bikeType, sdMm: earlierSdMm(bike, 0, true), prior, footing, carriedPrior }
  const { particles } = samplePosterior(inputs, [], seed, PARTICLES)
  const variants = variantsOf(question)
  const weighed = variants.map((variant) => ({
    ...variant,
    log: Math.log(variant.share) + logEvidence(particles, question, variant, school),
  }))
  const top = Math.max(...weighed.map(({ log }) => log))
  const total = weighed.reduce((sum, { log }) => sum + Math.exp(log - top), 0)
  const chances = weighed.map(({ cause, log }) => ({ cause, chance: Math.exp(log - top) / total }))
  return grouped(chances).sort((a, b) => b.chance - a.chance)
}

type Variant = Readonly<{
  cause: MisSetCause
  share: number
  /** True position of the saddle, and what is under the foot. */
  truly: Marks
  slipMm: number
  soleMm: number
}>

function variantsOf({ bikeType, marks, elsewhere = [] }: MisSetQuestion): Variant[] {
  const neighbours = axesOf(bikeType)
    .filter((axis) => SEAT_AXES.includes(axis))
    .flatMap((axis) =>
      besides(bikeType, axis, marks[axis]).map((truly) => ({ code: 'offByOne' as const, axis, truly })),
    )
  const swaps = swapsOf(bikeType, marks)
  const others = elsewhere.flatMap(({ type, marks: there }) => {
    const truly = asFarAsTheyGo(bikeType, marks, there)
    return truly ? [{ code: 'otherType' as const, type, truly }] : []
  })
  const plain = { slipMm: 0, soleMm: 0 }
  return [
    { cause: { code: 'asSet' }, share: CAUSE_SHARE.asSet, truly: marks, ...plain },
    ...neighbours.map((cause) => ({
      cause,
      share: CAUSE_SHARE.offByOne / neighbours.length,
      truly: { ...marks, [cause.axis]: cause.truly },
      ...plain,
    })),
    ...swaps.map((cause) => ({ cause, share: CAUSE_SHARE.swapped / swaps.length, truly: cause.truly, ...plain })),
    ...others.map((cause) => ({ cause, share: CAUSE_SHARE.otherType / others.length, truly: cause.truly, ...plain })),
    ...SLIPS_MM.map((mm) => ({
      cause: { code: 'postSlipped' as const, mm },
      share: CAUSE_SHARE.postSlipped / SLIPS_MM.length,
      truly: marks,
      slipMm: mm,
      soleMm: 0,
    })),
    ...SOLES_MM.map((mm) => ({
      cause: { code: 'otherShoe' as const, mm },
      share: CAUSE_SHARE.otherShoe / SOLES_MM.length,
      truly: marks,
      slipMm: 0,
      soleMm: mm,
    })),
  ]
}

/** The printed marks on either side: those between are not where a pin goes in by mistake. */
function besides(bikeType: BikeType, axis: AxisName, label: Label | undefined): Label[] {
  const { scale } = axisOf(bikeType, axis)!
  const positions = positionsOf(scale)
  const at = positions.findIndex((one) => one.label === label)
  if (at < 0) return []
  const step = 'ruler' in scale ? Math.max(1, Math.round(1 / scale.ruler.resolution)) : scale.halfMarks ? 2 : 1
  return [positions[at - step], positions[at + step]].flatMap((one) => (one ? [one.label] : []))
}

type Swap = Extract<MisSetCause, { code: 'swapped' }>

function swapsOf(bikeType: BikeType, marks: Marks): Swap[] {
  const axes = axesOf(bikeType)
  return axes.flatMap((a, i) =>
    axes.slice(i + 1).flatMap((b): Swap[] => {
      const [first, second] = [marks[a], marks[b]]
      if (first === undefined || second === undefined || first === second) return []
      const fits = (axis: AxisName, label: Label) => findPosition(axisOf(bikeType, axis)!.scale, label)
      const [onA, onB] = [fits(a, second), fits(b, first)]
      if (onA.outcome !== 'found' || onB.outcome !== 'found') return []
      // What does not move the saddle is seen by nobody who looks at knee and plumb line.
      if (!SEAT_AXES.includes(a) && !SEAT_AXES.includes(b)) return []
      return [{ code: 'swapped', axes: [a, b], truly: { ...marks, [a]: onA.stop.label, [b]: onB.stop.label } }]
    }),
  )
}

/** Another type's numbers where this bike has such labels; null where they give the intended saddle position. */
function asFarAsTheyGo(bikeType: BikeType, marks: Marks, there: Marks): Marks | null {
  const truly: Partial<Record<AxisName, Label>> = { ...marks }
  for (const axis of AXES) {
    const label = there[axis]
    const scale = axisOf(bikeType, axis)?.scale
    const found = scale && label !== undefined ? findPosition(scale, label) : null
    if (found?.outcome === 'found') truly[axis] = found.stop.label
  }
  return agreeOn(LEG_AXES, truly, marks) ? null : truly
}

/** Log marginal likelihood of the evidence under a variant, averaged over the rider's prior. */
function logEvidence(
  particles: Particles,
  { bikeType, bike, marks, evidence, observer }: MisSetQuestion,
  { truly, slipMm, soleMm }: Variant,
  school: School,
): number {
  const moved = (row: Evidence): Evidence => {
    if (row.kind === 'rider') return { ...row, soleMm: Math.max(0, (row.soleMm ?? DEFAULT_SOLE_MM) + soleMm) }
    // A row at the doubtful marks was taken at the true position.
    const here =
      isSaddleCheck(row) && AXES.every((axis) => row.at?.[axis] === undefined || row.at[axis] === marks[axis])
    return here ? ({ ...row, at: truly } as Evidence) : row
  }
  const hasRiderRow = evidence.some(({ kind }) => kind === 'rider')
  const rows: Evidence[] = [
    ...(hasRiderRow
      ? []
      : [{ kind: 'rider' as const, experience: 'regular' as const, soleMm: DEFAULT_SOLE_MM + soleMm }]),
    ...evidence.map(moved),
  ]
  const slipped: Bike = {
    ...bike,
    offsetsMm: { ...bike?.offsetsMm, seatHeight: (bike?.offsetsMm?.seatHeight ?? 0) - slipMm },
  }
  const { likelihoods } = readSetup({ bikeType, bike: slipped, evidence: rows }, school, observer).combined(rows.length)
  const sums = new Float64Array(particles.count)
  for (const likelihood of likelihoods) {
    const logs = logLikelihoods(likelihood, particles)
    for (let i = 0; i < sums.length; i++) sums[i] += logs[i]
  }
  const top = sums.reduce((a, b) => Math.max(a, b), -Infinity)
  return top + Math.log(sums.reduce((sum, log) => sum + Math.exp(log - top), 0) / sums.length)
}

/** Slips of different lengths count as one cause; the result names the most probable length. */
function grouped(weighed: readonly Readonly<{ cause: MisSetCause; chance: number }>[]): RankedCause[] {
  const keyOf = (cause: MisSetCause) =>
    cause.code === 'postSlipped' ? 'postSlipped' : cause.code === 'otherShoe' ? `shoe ${Math.sign(cause.mm)}` : cause
  const groups = new Map<unknown, { cause: MisSetCause; best: number; chance: number }>()
  for (const { cause, chance } of weighed) {
    const key = keyOf(cause)
    const group = groups.get(key)
    if (!group) groups.set(key, { cause, best: chance, chance })
    else {
      group.chance += chance
      if (chance > group.best) Object.assign(group, { cause, best: chance })
    }
  }
  return [...groups.values()].map(({ cause, chance }) => ({ ...cause, chance }))
}
