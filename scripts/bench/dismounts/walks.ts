import type { Marks } from '../../../core/base/conventions'
import type { Observer } from '../../../core/riders/evidence/definition/defineKind'
import type { Evidence } from '../../../core/riders/evidence/registry'
import { MEASUREMENT_SD } from '../../../core/base/measurementNoise'
import { advise } from '../../../core/setups/recommend/recommend'
import type { CarriedBody, EarlierSetup } from '../../../core/setups/recommend/history/riderHistory'
import type { Prior } from '../../../core/riders/rider/prior'
import { nearestPosition, positionsOf } from '../../../core/bikes/scale/scale'
import { DEFAULT_SCHOOL, inWindow } from '../../../core/base/school/school'
import * as simulated from '../../../core/simulated/simulatedRider'
import type { SimulatedRider } from '../../../core/simulated/simulatedRider'
import { aMarkExists, isKneeWithin, OTHER_BIKE, isPlumbWithin, right, SAMPLES, TOLERANCE } from './inputs'
import type { Stated } from './stated'

const MAX_MOUNTS = 12

export type Ended = Readonly<{
  dismounts: number
  /** Both checks right at the first mount, and at the end; the knee at the end, where a mark exists for both. */
  first: boolean
  both: boolean
  knee: boolean | null
  stated: Readonly<{ height: readonly Stated[]; slide: readonly Stated[]; start: readonly Stated[] }>
}>

const NOTHING_STATED = { height: [], slide: [], start: [] }
const endedAt = (
  rider: SimulatedRider,
  { at, firstAt, dismounts }: { at: Marks; firstAt: Marks; dismounts: number },
  stated: Ended['stated'] = NOTHING_STATED,
): Ended => ({
  dismounts,
  first: right(rider, firstAt),
  both: right(rider, at),
  knee: aMarkExists(rider) ? isKneeWithin(rider, at, TOLERANCE.deg) : null,
  stated,
})

/** By hand: both checks in a mount, then one change of height and slide, until both are on target or nothing moves. */
function byHand(rider: SimulatedRider, moveMm: (at: Marks) => { height: number; slide: number }): Ended {
  const { seatHeight, seatSlide } = rider.bikeType.axes
  const crestMark = simulated.crestAtMark(rider).at!.seatHeight
  let height = positionsOf(seatHeight.scale).find(({ label }) => label === crestMark)!
  let slide = nearestPosition(seatSlide!.scale, 0)
  const firstAt: Marks = { seatHeight: height.label, seatSlide: slide.label }
  for (let dismounts = 0; ; dismounts++) {
    const at: Marks = { seatHeight: height.label, seatSlide: slide.label }
    const move = moveMm(at)
    const up = nearestPosition(seatHeight.scale, height.mm + move.height)
    const along = nearestPosition(seatSlide!.scale, slide.mm + move.slide)
    if ((up.label === height.label && along.label === slide.label) || dismounts >= MAX_MOUNTS)
      return endedAt(rider, { at, firstAt, dismounts })
    ;[height, slide] = [up, along]
  }
}

export const BY_HAND: Readonly<Record<string, (rider: SimulatedRider) => Ended>> = {
  /** One mark (at least 12 mm) at each look that is off, the slide by 10 mm when the knee looks off the pedal. */
  'by hand, by eye': (rider) =>
    byHand(rider, (at) => {
      const { seen } = simulated.kneeByEye(rider, at)
      const mm = simulated.truePlumbMm(rider, at) + MEASUREMENT_SD.plumbByEyeMm * rider.random.normal()
      return {
        height: seen === 'locked' ? -12.1 : seen === 'deepBend' ? 12.1 : 0,
        slide: mm > 20 ? -10 : mm < -20 ? 10 : 0,
      }
    }),
  /** 2.2 mm of seat a degree from the window's middle, the slide by the string. */
  'by hand, goniometer and string': (rider) =>
    byHand(rider, (at) => {
      const { deg } = simulated.goniometer(rider, at)
      const { mm } = simulated.plumbLine(rider, at)
      return {
        height: inWindow(deg, DEFAULT_SCHOOL.kneeWindowDeg) ? 0 : 2.2 * (deg - 30),
        slide: Math.abs(mm) <= 15 ? 0 : -mm,
      }
    }),
}

export type Looks = (rider: SimulatedRider, at: Marks) => Evidence[]
export type StartInformation = Readonly<{
  evidence: readonly Evidence[]
  history?: readonly EarlierSetup[]
  body?: CarriedBody
  observer?: Observer
  prior?: Partial<Prior>
}>

/** Follows the recommendation until it stops; every change is one dismount. */
export function follow(rider: SimulatedRider, start: StartInformation, look: Looks): Ended {
  const { bikeType } = rider
  const evidence: Evidence[] = [...start.evidence]
  const stated = { height: [] as Stated[], slide: [] as Stated[], start: [] as Stated[] }
  let firstAt: Marks = {}
  for (let mounts = 0; ; mounts++) {
    const { next, marks, chances } = advise({ bikeType, ...start, evidence, seed: 1, samples: SAMPLES })
    const at: Marks = { ...marks, ...Object.fromEntries(next.moves.map((m) => [m.axis, m.to])) }
    for (const { chance, label } of chances.seatHeight ?? [])
      if (chance >= 0.02) stated.height.push({ chance, true: isKneeWithin(rider, { ...marks, seatHeight: label }) })
    for (const { chance, label } of chances.seatSlide ?? [])
      if (chance >= 0.02) stated.slide.push({ chance, true: isPlumbWithin(rider, { ...marks, seatSlide: label }) })
    if (mounts === 0) {
      firstAt = at
      const chanceReason = next.reasons.find((reason) => reason.code === 'chance')
      if (chanceReason?.code === 'chance')
        stated.start.push({ chance: chanceReason.chance, true: isKneeWithin(rider, at) && isPlumbWithin(rider, at) })
    }
    const moved = next.moves.some((m) => m.from !== m.to)
    if ((mounts > 0 && (next.kind === 'stop' || !moved)) || mounts > MAX_MOUNTS)
      return endedAt(rider, { at, firstAt, dismounts: mounts - 1 }, stated)
    evidence.push(...look(rider, at))
  }
}

/** The product's questions beside the bike, as long as one is worth its time. */
function withTalk(rider: SimulatedRider): StartInformation {
  const evidence: Evidence[] = [simulated.crestAtMark(rider)]
  for (let questions = 0; questions < 6; questions++) {
    const [top] = advise({ bikeType: rider.bikeType, evidence, seed: 1, samples: SAMPLES }).questions
    if (!top || top.worthS <= 0) break
    evidence.push(simulated.answerBeside(rider, top.question))
  }
  return { evidence }
}

const AGO_DAYS = 180
/** The same shoes then and now, as reported. */
const SOLE: Evidence = { kind: 'rider', experience: 'regular', soleMm: 10 }

/** Set up half a year ago on another type, checked with goniometer and string at the marks that were right there. */
function withOtherType(rider: SimulatedRider): StartInformation {
  const then = simulated.inAnotherSetup(rider, OTHER_BIKE, AGO_DAYS)
  const { seatHeight, seatSlide } = OTHER_BIKE.axes
  const pairs = positionsOf(seatHeight.scale).flatMap((height) =>
    positionsOf(seatSlide!.scale).map((slide) => ({ seatHeight: height.label, seatSlide: slide.label })),
  )
  const missOf = (at: Marks) =>
    Math.abs(simulated.trueFlexionDeg(then, at) - 30) + Math.abs(simulated.truePlumbMm(then, at)) / 3
  const at = pairs.reduce((best, pair) => (missOf(pair) < missOf(best) ? pair : best))
  const evidence = [SOLE, simulated.goniometer(then, at), simulated.plumbLine(then, at)]
  return { evidence: [SOLE], history: [{ bikeType: OTHER_BIKE, evidence, agoDays: AGO_DAYS }] }
}

const GONIOMETER: Looks = (rider, at) => [simulated.goniometer(rider, at), simulated.plumbLine(rider, at)]
const EYE: Looks = (rider, at) => [
  simulated.kneeByEye(rider, at),
  simulated.heelCheck(rider, at),
  simulated.plumbLine(rider, at),
]
export const crest = (rider: SimulatedRider): StartInformation => ({ evidence: [simulated.crestAtMark(rider)] })
export const WAYS: readonly Readonly<{
  start: string
  method: string
  from: (r: SimulatedRider) => StartInformation
  look: Looks
}>[] = [
  { start: 'hip crest', method: 'goniometer, plumb line', from: crest, look: GONIOMETER },
  { start: 'hip crest and what it asks', method: 'goniometer, plumb line', from: withTalk, look: GONIOMETER },
  { start: 'known on another type', method: 'goniometer, plumb line', from: withOtherType, look: GONIOMETER },
  { start: 'hip crest', method: 'eye, heel, plumb line', from: crest, look: EYE },
]

/** A rider from another bike sits differently today than on the day of that set-up. */
export const drawToday: typeof simulated.drawRider = (population, bikeType, random) =>
  simulated.inAnotherSetup(simulated.drawRider(population, bikeType, random), bikeType)
