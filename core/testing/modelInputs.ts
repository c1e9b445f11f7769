import { contactPoints } from '../bikes/bike/contactPoints'
import type { ReadingContext } from '../riders/evidence/definition/defineKind'
import type { ModelInputs } from '../riders/inference/particles'
import { priorFor, priorVectorOf, type Prior } from '../riders/rider/prior'
import { schoolOf } from '../base/school/school'
import { CRANK, HOLES_BIKE } from './meanRider'

/** Riders of the usual prior on the bike of holes, in the usual sole, the saddle exactly at its marks; for tests. */
export const holesInputs = (changes: Partial<Prior> = {}): ModelInputs => ({
  bikeType: HOLES_BIKE,
  sdMm: { seatHeight: 0, seatSlide: 0 },
  prior: priorVectorOf(priorFor('natural', changes)),
  footing: { soleMm: 10, pedalSurfaceMm: CRANK.pedalSurfaceMm },
})

/** The situation with that bike's seat post at so many mm, all else at 0. */
export const holesContext = (seatHeightMm: number): ReadingContext => ({
  bikeType: HOLES_BIKE,
  contact: contactPoints(HOLES_BIKE, undefined, { seatHeight: seatHeightMm }),
  spacingMm: 20,
  footing: { soleMm: 10, pedalSurfaceMm: CRANK.pedalSurfaceMm },
  school: schoolOf(),
})
