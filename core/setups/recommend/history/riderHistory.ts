import { LRUCache } from 'lru-cache'
import { Type } from '@sinclair/typebox'
import type { AxisName } from '../../../base/adjustments'
import { bikeRef, bikeTypeRef, type Bike } from '../../../bikes/bike/bike'
import type { evidenceSchema } from '../../../riders/evidence/registry'
import type { NormalScores } from '../../../riders/inference/normalScores'
import { bodyBeliefSchema, scoresFromBelief, type Widening } from '../../../riders/inference/bodyBelief'
import type { ModelInputs, ShorterLeg } from '../../../riders/inference/particles'
import { carryOverPrior, samplePosterior } from '../../../riders/inference/posterior'
import type { PriorVector } from '../../../riders/rider/prior'
import { between, closed, refTo, type Plain } from '../../../base/schema'
import type { School } from '../../../base/school/school'
import { readSetup } from './setupReadings'

/** An earlier set-up of the same rider, on any type of bike. */
export const earlierSetupSchema = closed({
  bikeType: bikeTypeRef,
  bike: Type.Optional(bikeRef),
  evidence: Type.Array(refTo<typeof evidenceSchema>('evidence'), { maxItems: 200 }),
  agoDays: between(0, 36500),
})
export type EarlierSetup = Plain<typeof earlierSetupSchema>

/** What another studio believed of the rider's body, so many days ago. */
export const carriedBodySchema = closed({ belief: bodyBeliefSchema, agoDays: between(0, 36500) })
export type CarriedBody = Plain<typeof carriedBodySchema>

/**
 * Variation of one rider between set-ups: the place on the saddle and about 2 degrees of foot pitch, expressed as a
 * saddle offset; standard deviation, mm along the seat's axes. Assumption.
 */
export const SETUP_HABIT_SD_MM = Object.freeze({ seatHeight: 3.5, seatSlide: 5.5 })
/** What was learned widens by this much a year, mm (model notes). */
export const DRIFT_MM_A_YEAR = 4
/** Shoes changed without a word move the seat by this, mm; of all riders so many have changed them within a year. */
export const UNTOLD_SHOES_MM = 6
const SHOES_A_YEAR = 1
const DAYS_A_YEAR = 365

/**
 * Standard deviation of the saddle offset in an earlier set-up of this rider: the machine, the variation between
 * set-ups, and the drift since; mm along the seat's axes.
 */
export function earlierSdMm(bike: Bike | undefined, agoDays: number, isSoleGiven: boolean): ModelInputs['sdMm'] {
  const since = changeSince(agoDays, isSoleGiven)
  const machine = machineSdMm(bike)
  return {
    seatHeight: Math.hypot(machine.seatHeight, SETUP_HABIT_SD_MM.seatHeight, since.seatHeight),
    seatSlide: Math.hypot(machine.seatSlide, SETUP_HABIT_SD_MM.seatSlide, since.seatSlide),
  }
}

/** Standard deviation of what has changed about a rider in so many days, mm along the seat's axes. */
export function changeSince(agoDays: number, isSoleGiven: boolean): Widening {
  const years = agoDays / DAYS_A_YEAR
  const driftMm = DRIFT_MM_A_YEAR * Math.sqrt(years)
  const shoesMm = isSoleGiven ? 0 : UNTOLD_SHOES_MM * Math.sqrt(Math.min(1, SHOES_A_YEAR * years))
  return { seatHeight: Math.hypot(driftMm, shoesMm), seatSlide: driftMm }
}

/** Standard deviation of this machine's saddle offset, mm: by whatever carries it up, and whatever fore-aft. */
export function machineSdMm(bike: Bike | undefined): ModelInputs['sdMm'] {
  const sd = (axis: AxisName) => bike?.sdMm?.[axis] ?? 0
  return {
    seatHeight: Math.hypot(sd('seatHeight'), sd('frameHeight'), sd('seatExtra')),
    seatSlide: Math.hypot(sd('seatSlide'), sd('frameSlide')),
  }
}

type Question = Readonly<{
  history: readonly EarlierSetup[]
  /** Comes before the history. */
  body?: CarriedBody
  school: School
  prior: PriorVector
  seed: number
  shorterLeg?: ShorterLeg
}>

/** A normal distribution is fitted to them: so many are enough. */
const PARTICLES = 1500

/** Priors carried over from earlier set-ups, by request; each takes some kilobytes. */
const priorCache = new LRUCache<string, NormalScores>({ max: 100 })

/**
 * The prior of the body from earlier set-ups, a normal distribution over its standard scores: sequential updates from
 * the oldest, each on its own bike, with the posterior of one as the prior of the next, beginning with what another
 * studio believed. Undefined without either. The same history gives the same answer, cached or not.
 */
export function priorFromHistory(question: Question): NormalScores | undefined {
  const oldestFirst = [...question.history].sort((a, b) => b.agoDays - a.agoDays)
  return priorUpTo(oldestFirst.length, oldestFirst, question)
}

function priorUpTo(setups: number, history: readonly EarlierSetup[], question: Question): NormalScores | undefined {
  const { school, prior, seed, shorterLeg, body } = question
  if (setups === 0) {
    if (!body) return undefined
    const widening = changeSince(body.agoDays, false)
    return scoresFromBelief(body.belief, prior, school.foot, widening) ?? undefined
  }
  const key = JSON.stringify([history.slice(0, setups), school, prior, seed, shorterLeg, body])
  const before = priorCache.get(key)
  if (before) return before
  const setup = history[setups - 1]
  const readings = readSetup(setup, school, undefined)
  const inputs: ModelInputs = {
    bikeType: setup.bikeType,
    sdMm: earlierSdMm(setup.bike, setup.agoDays, readings.isSoleGiven),
    prior,
    footing: readings.footing,
    carriedPrior: priorUpTo(setups - 1, history, question),
    shorterLeg,
  }
  const { likelihoods } = readings.combined(setup.evidence.length)
  const carried = carryOverPrior(inputs, samplePosterior(inputs, likelihoods, seed, PARTICLES))
  priorCache.set(key, carried)
  return carried
}
