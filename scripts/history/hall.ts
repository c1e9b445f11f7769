/** What every part of the demo's history is made from. */
import type { SimulatedRider } from '../../core/simulated/simulatedRider'
import { inAnotherSetup } from '../../core/simulated/simulatedRider'
import type { Scope } from '../../server/platform/accounts/scope'
import type { StudioBike } from '../../server/bikes/bikes'
import type { Database } from '../../server/platform/db/connection'
import { TYPES, type MEMBERS } from '../netloftHall'

/** Seed of everything that is drawn. */
export const SEED = 7041
/** Weeks the history goes back. */
export const WEEKS = 20
export const DAY_MS = 86_400_000
/** Index of the first member without numbers: the newcomers of the coming days. */
export const WITHOUT_NUMBERS = 80
/** A machine with its seat lower than its marks, mm: its riders reveal that. */
export const LOW_BIKE = { number: 12, standsMm: -10 }

export type Hall = Readonly<{
  db: Database
  now: Date
  scopes: readonly Scope[]
  bikes: readonly StudioBike[]
  riders: readonly Rider[]
}>
export type Rider = Readonly<{ id: string; home: keyof typeof TYPES; body: SimulatedRider; experience: Experience }>
export type Experience = (typeof MEMBERS)[number]['experience']

export const memberId = (i: number): string => `member-${String(i + 1).padStart(2, '0')}`
/** As printed on the member's card. */
export const memberNumber = (i: number): string => String(1001 + i)
export const daysBefore = (now: Date, days: number): Date => new Date(now.getTime() - days * DAY_MS - 3_600_000)

/** A rider on a machine with its recorded offset and the hidden one of bike 12. */
export function bodyOn(rider: Rider, { lineId, number, machineCalibration }: StudioBike): SimulatedRider {
  const hiddenMm = number === LOW_BIKE.number ? LOW_BIKE.standsMm : 0
  const { seatHeight = 0, seatSlide = 0 } = machineCalibration.offsetsMm ?? {}
  const scaleErrorMm = { seatHeight: seatHeight + hiddenMm, seatSlide }
  return inAnotherSetup(rider.body, TYPES[lineId as keyof typeof TYPES], 0, scaleErrorMm)
}
