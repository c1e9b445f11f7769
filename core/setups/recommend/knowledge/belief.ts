import { offsetPoint } from '../../../base/geometry'
import type { Marks } from '../../../base/conventions'
import { schoolOf, type School } from '../../../base/school/school'
import type { Bike, BikeType } from '../../../bikes/bike/bike'
import { seatedAt } from '../../../bikes/bike/contactPoints'
import { handTiltDeg, withDefaults, type PlainType } from '../../../bikes/bike/standing'
import { isSaddleCheck } from '../../../riders/evidence/evidence'
import type { MeantReason } from '../../../riders/evidence/kinds/onBike/set'
import type { Evidence } from '../../../riders/evidence/registry'
import type { ModelInputs } from '../../../riders/inference/particles'
import { adaptProposal, samplePosterior, type Posterior } from '../../../riders/inference/posterior'
import { cachedProposal } from '../../../riders/inference/proposalCache'
import type { CombinedLikelihoods } from '../../../riders/inference/repeatedReadings'
import { priorFor, priorVectorOf } from '../../../riders/rider/prior'
import { defaultSlide, intentionalSettingReason } from '../history/marksHistory'
import { earlierSdMm, machineSdMm, priorFromHistory, type EarlierSetup } from '../history/riderHistory'
import { readSetup, type SetupReadings } from '../history/setupReadings'
import type { RecommendRequest } from '../request/request'
import { schoolOn } from './schoolOn'
import { READING_TOLERANCE } from '../saddle/saddleSearch'
import { targetProbabilities, type TargetProbabilities } from '../saddle/targetProbabilities'

/** A machine whose further adjustments stand at known marks. */
export type StandingMachine = Readonly<{ bikeType: PlainType; bike: Bike | undefined }>

/** What is known of a rider on a bike before anything is decided: the readings and the posterior from them. */
export type Knowledge = Readonly<{
  request: RecommendRequest
  /** The type with the seat point where this rider sits. */
  bikeType: BikeType
  school: School
  history: readonly EarlierSetup[]
  readings: SetupReadings
  inputs: ModelInputs
  seed: number
  repeats: CombinedLikelihoods
  posterior: Posterior
  /** Of each row, whether its repeats contradict each other. */
  contradicting: readonly boolean[]
  /** Reason of an intentional setting, if nothing has moved since. */
  meant: MeantReason | undefined
  /** A check on the saddle was made, or the numbers are on purpose. */
  started: boolean
  /** The marks named so far, once started with what they leave out at its default. */
  now: Marks
  /** The school as it can be followed on this type. */
  followed: School
  /** The checks of the saddle on cranks of a length; the type's own where it leaves no choice. */
  onCranks: (crankMm: number) => CrankTargets
}>

/** The saddle's checks on one length of cranks, with windows as wide as they are, and as wide as a reading resolves. */
export type CrankTargets = Readonly<{
  posterior: Posterior
  targets: TargetProbabilities
  tolerant: TargetProbabilities
}>

/** Reads the evidence and samples the posterior; every further adjustment counts at each row as it then stood. */
export function believe(request: RecommendRequest): Knowledge {
  const { bike, evidence, observer, body } = request
  const { shorterLeg, sitsAtMm, ownSaddleMm } = request.limits ?? {}
  const seated = (type: BikeType, machine: Bike | undefined) =>
    onOwnSaddle(seatedAt(type, machine, sitsAtMm), ownSaddleMm)
  const bikeType = seated(request.bikeType, tiltedByHand(request))
  const school = schoolOf(request.school)
  const history = (request.history ?? []).map((setup) =>
    sitsAtMm || ownSaddleMm ? { ...setup, bikeType: seated(setup.bikeType, setup.bike) } : setup,
  )
  const readings = readSetup({ bikeType, bike, evidence }, school, observer)
  const seed = request.seed ?? 1
  const count = request.samples ?? 4000
  const prior = priorVectorOf(priorFor(school.foot, request.prior))
  const carriedPrior = priorFromHistory({ history, body, school, prior, seed, shorterLeg })
  const inputs: ModelInputs = {
    bikeType,
    sdMm: carriedPrior ? earlierSdMm(bike, 0, true) : machineSdMm(bike),
    prior,
    footing: readings.footing,
    carriedPrior,
    shorterLeg,
  }
  const repeats = readings.combined(evidence.length)
  const key = { ...inputs, bike, footing: 0, carriedPrior: [history, body], school, observer, seed, count }
  const from = cachedProposal(evidence.length, {
    key: (rows) => JSON.stringify([key, evidence.slice(0, rows), readings.at.slice(0, rows)]),
    proposal: (rows, earlier) => adaptProposal(inputs, readings.combined(rows).likelihoods, seed, count, earlier),
  })
  const posterior = samplePosterior(inputs, repeats.likelihoods, seed, count, from)
  const meant = intentionalSettingReason(evidence, readings.at, readings.now)
  // Intentional numbers are the saddle position, also before the first check.
  const started = meant !== undefined || evidence.some(isSaddleCheck)
  const isApart = hasBothSides(evidence) || (shorterLeg !== undefined && shorterLeg.mm <= APART_MOST_MM)
  const followed = schoolOn(bikeType, school)
  const targetsByCrank = new Map<number, CrankTargets>()
  return {
    request,
    bikeType,
    school,
    history,
    readings,
    inputs,
    seed,
    repeats,
    posterior,
    contradicting: readings.keys.map((k) => repeats.contradicting.has(k)),
    meant,
    started,
    now: started ? { seatSlide: defaultSlide(bikeType), ...withDefaults(bikeType, readings.now) } : readings.now,
    followed,
    onCranks: (crankMm) => {
      const found = targetsByCrank.get(crankMm) ?? targetsOn(crankMm)
      targetsByCrank.set(crankMm, found)
      return found
    },
  }

  function targetsOn(crankMm: number): CrankTargets {
    const { particles } = posterior
    const onThem = bikeType.axes.crankLength
      ? { ...posterior, particles: { ...particles, legs: particles.legsOn({ ...readings.footing, crankMm }) } }
      : posterior
    return {
      posterior: onThem,
      targets: targetProbabilities(onThem, followed, isApart),
      tolerant: targetProbabilities(onThem, followed, isApart, READING_TOLERANCE),
    }
  }
}

/** The type with what a rider brings on it: they sit so much higher than its own saddle's top. */
const onOwnSaddle = (bikeType: BikeType, mm: number | undefined): BikeType =>
  mm ? { ...bikeType, seatOrigin: offsetPoint(bikeType.seatOrigin, 0, mm) } : bikeType

/** The machine with the tilt that the hand set last added to its own. */
function tiltedByHand({ bikeType, bike, evidence }: RecommendRequest): Bike | undefined {
  const saddleTilt = evidence.findLast(({ at }) => at?.saddleTilt !== undefined)?.at?.saddleTilt
  const deg = saddleTilt === undefined ? 0 : handTiltDeg(bikeType, { saddleTilt })
  return deg === 0 ? bike : { ...bike, tiltDeg: (bike?.tiltDeg ?? 0) + deg }
}

/** A greater difference of the legs leaves no seat at which both knees lie in a window of 10°: the mean decides, mm. */
const APART_MOST_MM = 15

/** Whether the knee was read on the left and on the right: then both must lie in the window. */
function hasBothSides(evidence: readonly Evidence[]): boolean {
  const sides = evidence.flatMap((row) => (row.kind === 'kneeAngle' || row.kind === 'kneeByEye' ? [row.side] : []))
  return sides.includes('left') && sides.includes('right')
}
