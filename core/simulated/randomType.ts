import { isCommon, type AxisName } from '../base/adjustments'
import type { Rng } from '../base/rng'
import type { Axis, BikeType } from '../bikes/bike/bike'
import { axisOf } from '../bikes/bike/bike'
import { measuredAxesOf } from '../bikes/calibration/readings'
import { scaledBy } from '../bikes/scale/scale'

const between = (random: Rng, low: number, high: number): number => low + (high - low) * random.uniform()

/** A scale of evenly spaced marks "1", "2", … with its middle mark, or its first, at 0 mm. */
function evenly(count: number, spacingMm: number, from: 'middle' | 'first'): Axis['scale'] {
  const firstMm = from === 'first' ? 0 : -spacingMm * Math.floor(count / 2)
  return {
    marks: Array.from({ length: count }, (_, i) => ({ label: String(i + 1), mm: firstMm + i * spacingMm })),
    halfMarks: false,
  }
}

/** What may move beside seat height and bar height: its direction, its number of marks and how far apart they lie. */
const OPTIONAL: Readonly<
  Partial<Record<AxisName, Readonly<{ deg: readonly [number, number]; marks: number; mm: readonly [number, number] }>>>
> = {
  seatSlide: { deg: [-12, 12], marks: 9, mm: [8, 14] },
  barSlide: { deg: [-12, 25], marks: 7, mm: [12, 20] },
  frameHeight: { deg: [75, 110], marks: 6, mm: [14, 26] },
  frameSlide: { deg: [-12, 12], marks: 5, mm: [12, 22] },
  seatExtra: { deg: [25, 65], marks: 5, mm: [8, 16] },
  barExtra: { deg: [25, 65], marks: 5, mm: [12, 20] },
  barTurn: { deg: [130, 155], marks: 5, mm: [10, 18] },
}

/**
 * A type drawn at random, with 2 to 7 adjustments of any direction, some of them carrying saddle and bars together:
 * seat height and bar height always, the rest by chance; for tests and benches.
 */
export function randomType(random: Rng): BikeType {
  const names = (Object.keys(OPTIONAL) as AxisName[]).concat('crankLength')
  const count = Math.floor(6 * random.uniform())
  // Slides are the rule, the rest the exception.
  const chosen = names
    .map((name) => ({ name, order: random.uniform() - (isCommon(name) ? 0.5 : 0) }))
    .toSorted((a, b) => a.order - b.order)
    .slice(0, count)
    .map(({ name }) => name)
  const axis = (name: AxisName): Axis => {
    if (name === 'crankLength')
      return {
        directionDeg: 0,
        scale: { marks: [160, 165, 170, 175].map((mm) => ({ label: String(mm), mm })), halfMarks: false },
      }
    const { deg, marks, mm } = OPTIONAL[name]!
    const from = name === 'frameHeight' ? 'first' : 'middle'
    return { directionDeg: between(random, ...deg), scale: evenly(marks, between(random, ...mm), from) }
  }
  return {
    name: 'Drawn',
    crankMm: 170,
    pedalSurfaceMm: between(random, 8, 18),
    axleHeightMm: between(random, 280, 330),
    saddle: { noseAheadMm: between(random, 130, 170), lengthMm: 270, shape: 'flat' },
    seatOrigin: { xMm: between(random, -190, -150), yMm: between(random, 480, 540) },
    gripOrigin: { xMm: between(random, 330, 400), yMm: between(random, 620, 680) },
    axes: {
      seatHeight: { directionDeg: between(random, 90, 115), scale: evenly(16, between(random, 15, 22), 'first') },
      barHeight: { directionDeg: between(random, 75, 105), scale: evenly(12, between(random, 15, 22), 'first') },
      ...Object.fromEntries(chosen.map((name) => [name, axis(name)])),
    },
    forearmGaugeValid: random.uniform() < 0.5,
  }
}

/** The bike as it truly is where a guess strays as widely as the calibration's prior says. */
export function drawnTruth(guess: BikeType, random: Rng): BikeType {
  const origin = ({ xMm, yMm }: BikeType['seatOrigin']) => ({
    xMm: xMm + 25 * random.normal(),
    yMm: yMm + 25 * random.normal(),
  })
  const moved = measuredAxesOf(guess).map((name) => {
    const { directionDeg, scale } = axisOf(guess, name)!
    return [
      name,
      { directionDeg: directionDeg + 3 * random.normal(), scale: scaledBy(scale, 1 + 0.05 * random.normal()) },
    ]
  })
  return {
    ...guess,
    seatOrigin: origin(guess.seatOrigin),
    gripOrigin: origin(guess.gripOrigin),
    axes: { ...guess.axes, ...Object.fromEntries(moved) },
  }
}
