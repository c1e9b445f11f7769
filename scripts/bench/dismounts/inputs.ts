import { parseArgs } from 'node:util'
import type { BikeType } from '../../../core/bikes/bike/bike'
import type { Marks } from '../../../core/base/conventions'
import type { Prior } from '../../../core/riders/rider/prior'
import { createRng, type Rng } from '../../../core/base/rng'
import { positionsOf, type Scale } from '../../../core/bikes/scale/scale'
import { DEFAULT_SCHOOL, inWindow, PLUMB_WINDOW_MM } from '../../../core/base/school/school'
import * as simulated from '../../../core/simulated/simulatedRider'
import type { SimulatedRider } from '../../../core/simulated/simulatedRider'

const { values } = parseArgs({
  options: {
    seeds: { type: 'string', default: '1' },
    riders: { type: 'string', default: '200' },
    samples: { type: 'string', default: '1000' },
    only: { type: 'string', default: '' },
    parts: { type: 'string', default: 'walks,starts,learning,eyes' },
  },
})
export const SEEDS = values.seeds.split(',').map(Number)
export const RIDERS = Number(values.riders)
export const SAMPLES = Number(values.samples)
/** Of all rows only those whose "scale, start, method" matches. */
export const ONLY = new RegExp(values.only)
export const PARTS = new Set(values.parts.split(','))
/** The two checks are right within this of their windows: below the resolution of any instrument at the bike. */
export const TOLERANCE = { deg: 1, mm: 3 }

const letter = (i: number): string => (i >= 26 ? 'A' : '') + String.fromCharCode(65 + (i % 26))
export const SCALES: Readonly<Record<string, Scale>> = {
  'holes 20 mm': {
    marks: Array.from({ length: 21 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })),
    halfMarks: false,
  },
  'letters 12.7 mm': {
    marks: Array.from({ length: 33 }, (_, i) => ({ label: letter(i), mm: 12.7 * i })),
    halfMarks: false,
  },
}

export const bikeWith = (seatHeight: Scale, crankMm = 170): BikeType => ({
  name: 'bench',
  crankMm,
  pedalSurfaceMm: 14,
  axleHeightMm: 300,
  saddle: { noseAheadMm: 150, lengthMm: 275, shape: 'flat' },
  seatOrigin: { xMm: -164, yMm: 536 },
  gripOrigin: { xMm: 450, yMm: 650 },
  axes: {
    seatHeight: { directionDeg: 107, scale: seatHeight },
    seatSlide: {
      directionDeg: 0,
      scale: { marks: [...'ABCDEFG'].map((label, i) => ({ label, mm: 10 * (i - 3) })), halfMarks: false },
    },
    barHeight: {
      directionDeg: 90,
      scale: { marks: Array.from({ length: 12 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })), halfMarks: false },
    },
  },
  forearmGaugeValid: false,
})
/** The type on which a rider was set up before. */
export const OTHER_BIKE = bikeWith({ ruler: { min: 0, max: 40, resolution: 0.5, mmPerUnit: 10, mmAtZero: 0 } }, 172.5)

export const isKneeWithin = (rider: SimulatedRider, at: Marks, slackDeg = 0): boolean =>
  inWindow(simulated.trueFlexionDeg(rider, at), [
    DEFAULT_SCHOOL.kneeWindowDeg[0] - slackDeg,
    DEFAULT_SCHOOL.kneeWindowDeg[1] + slackDeg,
  ])
export const isPlumbWithin = (rider: SimulatedRider, at: Marks, slackMm = 0): boolean =>
  inWindow(simulated.truePlumbMm(rider, at), [PLUMB_WINDOW_MM.plumb[0] - slackMm, PLUMB_WINDOW_MM.plumb[1] + slackMm])
export const right = (rider: SimulatedRider, at: Marks): boolean =>
  isKneeWithin(rider, at, TOLERANCE.deg) && isPlumbWithin(rider, at, TOLERANCE.mm)

export function aMarkExists(rider: SimulatedRider): boolean {
  const { seatHeight, seatSlide } = rider.bikeType.axes
  return positionsOf(seatHeight.scale).some((height) =>
    positionsOf(seatSlide!.scale).some((slide) => {
      const at = { seatHeight: height.label, seatSlide: slide.label }
      return isKneeWithin(rider, at) && isPlumbWithin(rider, at)
    }),
  )
}

export const mean = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0) / numbers.length
export const share = (all: readonly boolean[]): number => mean(all.map((b) => (b ? 1 : 0)))
export const percent = (part: number): string => `${(100 * part).toFixed(1)} %`
export const ridersOf = (
  population: Prior,
  bikeType: BikeType,
  seed: number,
  make = simulated.drawRider,
): SimulatedRider[] => {
  const random: Rng = createRng(seed)
  return Array.from({ length: RIDERS }, () => make(population, bikeType, random))
}
