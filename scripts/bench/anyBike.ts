/**
 * `npm run bench:anyBike -- --types 40`: types drawn at random, 2 to 7 adjustments of any direction, coupled or not.
 * How honest the calibration's standard deviations are, how far `translate` lands from where it left, there and home,
 * how honest the chances of `recommend` are, and what a type of six adjustments costs beside one of four. Prints
 * Markdown.
 */
import { parseArgs } from 'node:util'
import { createRng } from '../../core/base/rng'
import { inWindow, PLUMB_WINDOW_MM, schoolOf } from '../../core/base/school/school'
import { SEAT_AXES } from '../../core/base/adjustments'
import { axesOf, axisOf, type Axis, type BikeType } from '../../core/bikes/bike/bike'
import { axisPositions, contactPoints } from '../../core/bikes/bike/contactPoints'
import { crankMmAt, furtherAxesOf } from '../../core/bikes/bike/standing'
import { fitTape } from '../../core/bikes/calibration/fitTape'
import { initialParameters, typeWith } from '../../core/bikes/calibration/parameters'
import { designGrid, predictionSd } from '../../core/bikes/calibration/predictionError'
import { nextDesignPoint } from '../../core/bikes/calibration/nextDesignPoint'
import { LENGTHS, observationsOf, type TapeReading } from '../../core/bikes/calibration/readings'
import { positionsOf, spacingMm } from '../../core/bikes/scale/scale'
import type { Marks } from '../../core/base/conventions'
import { drawnTruth, randomType } from '../../core/simulated/randomType'
import { tapeAt } from '../../core/simulated/simulatedTape'
import {
  drawRider,
  goniometer,
  plumbLine,
  POPULATIONS,
  statureAndInseam,
  trueFlexionDeg,
  truePlumbMm,
} from '../../core/simulated/simulatedRider'
import { schoolOn } from '../../core/setups/recommend/knowledge/schoolOn'
import { advise } from '../../core/setups/recommend/recommend'
import { farthestPedalMm } from '../../core/setups/translate/contactGeometry'
import { translateMarks } from '../../core/setups/translate/translate'
import { TYPES } from '../netloftHall'

const { values } = parseArgs({
  options: { types: { type: 'string', default: '40' }, riders: { type: 'string', default: '10' } },
})
const RIDERS = Number(values.riders)
const types = Array.from({ length: Number(values.types) }, (_, i) => randomType(createRng(1000 + i)))
const percent = (share: number) => `${(100 * share).toFixed(1)} %`
const mean = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0) / Math.max(1, numbers.length)

/** Settings as the product proposes them, so many for each of the axes. */
function settingsFor(guess: BikeType): Marks[] {
  const readings: TapeReading[] = []
  for (let k = 0; k < 5 + axesOf(guess).length; k++) {
    const { marks } = nextDesignPoint(guess, readings)
    readings.push({ marks, lengths: contactPoints(guess, undefined, axisPositions(guess, marks)).lengths })
  }
  return readings.map(({ marks }) => marks)
}

/** Of all predicted lengths, the share that lies within 1.96 of its stated standard deviations of the truth. */
function calibrated(): Readonly<{ within: number; medianMm: number }> {
  const errors: { z: number; mm: number }[] = []
  types.forEach((guess, i) => {
    const settings = settingsFor(guess)
    for (let trial = 0; trial < 5; trial++) {
      const random = createRng(50_000 + 100 * i + trial)
      const truth = drawnTruth(guess, random)
      const observed = observationsOf(settings.map((marks) => tapeAt(truth, marks, random, 1.5)))
      const fit = fitTape(
        guess,
        observed,
        observed.map(() => 1),
        initialParameters(guess),
      )
      const fitted = typeWith(guess, fit.parameters)
      const ratio = (of: BikeType, positions: ReturnType<typeof designGrid>[number]) =>
        contactPoints(of, undefined, positions).lengths
      const grids = [designGrid(guess), designGrid(truth), designGrid(fitted)]
      grids[0].forEach((positions, k) => {
        if (k % 5 !== 0) return
        const [is, said] = [ratio(truth, grids[1][k]), ratio(fitted, grids[2][k])]
        for (const length of LENGTHS) {
          const sd = predictionSd(guess, fit.parameters, fit.covariance, positions, length)
          errors.push({ z: Math.abs(is[length] - said[length]) / sd, mm: Math.abs(is[length] - said[length]) })
        }
      })
    }
  })
  return {
    within: errors.filter(({ z }) => z <= 1.96).length / errors.length,
    medianMm: errors.map(({ mm }) => mm).toSorted((a, b) => a - b)[Math.floor(errors.length / 2)],
  }
}

const label = (type: BikeType, axis: ReturnType<typeof axesOf>[number], share: number) => {
  const positions = positionsOf(axisOf(type, axis)!.scale)
  return positions[Math.min(positions.length - 1, Math.floor(share * positions.length))].label
}

/** There and home between random types: how far the saddle is from the pedal, and behind the axle, in half marks. */
function translated() {
  const random = createRng(9)
  const home: number[] = []
  const there: number[] = []
  let ended = 0
  for (let k = 0; k < 400; k++) {
    const [a, b] = [0, 1].map(() => types[Math.floor(random.uniform() * types.length)])
    const marks = Object.fromEntries(
      axesOf(a).map((axis) => [axis, label(a, axis, 0.3 + 0.4 * random.uniform())]),
    ) as Marks
    const to = translateMarks({ from: { bikeType: a, marks }, to: { bikeType: b } })
    const back = translateMarks({ from: { bikeType: b, marks: to.marks }, to: { bikeType: a } })
    const ends = [...to.outOfRange, ...back.outOfRange].some(({ axis }) => SEAT_AXES.includes(axis))
    if (ends) {
      ended++
      continue
    }
    const legMm = (type: BikeType, at: Marks) => {
      const { seat } = contactPoints(type, undefined, axisPositions(type, at))
      return farthestPedalMm(seat, { crankMm: crankMmAt(type, at), pedalSurfaceMm: type.pedalSurfaceMm })
    }
    const stepMm = (axis: Axis | undefined) => (axis ? spacingMm(axis.scale) : 0)
    const half = ({ axes }: BikeType) => (stepMm(axes.seatHeight) + stepMm(axes.seatSlide)) / 2
    there.push(Math.abs(legMm(b, to.marks) - legMm(a, marks)) / half(b))
    home.push(Math.abs(legMm(a, back.marks) - legMm(a, marks)) / (half(a) + half(b)))
  }
  return { there: Math.max(...there), home: Math.max(...home), count: home.length, ended }
}

/** Stated chances beside how often it came true, of the first suggestion and after a reading. */
function honest() {
  const rows = { start: [] as [number, number][], after: [] as [number, number][] }
  types.forEach((bikeType, i) => {
    const school = schoolOn(bikeType, schoolOf({}))
    for (let r = 0; r < RIDERS; r++) {
      const rider = drawRider(POPULATIONS.own, bikeType, createRng(70_000 + 1000 * i + r))
      const holds = (marks: Marks) =>
        inWindow(trueFlexionDeg(rider, marks), school.kneeWindowDeg) &&
        (school.foreAft === 'unused' || inWindow(truePlumbMm(rider, marks), PLUMB_WINDOW_MM[school.foreAft]))
      const evidence = statureAndInseam(rider)
      const first = advise({ bikeType, evidence, samples: 1500 })
      rows.start.push([first.chance, holds(first.marks) ? 1 : 0])
      const read = [...evidence, goniometer(rider, first.marks), plumbLine(rider, first.marks)]
      const second = advise({ bikeType, evidence: read, samples: 1500 })
      rows.after.push([second.chance, holds(first.marks) ? 1 : 0])
    }
  })
  const gap = (pairs: [number, number][]) => ({
    stated: mean(pairs.map(([chance]) => chance)),
    came: mean(pairs.map(([, held]) => held)),
  })
  return { start: gap(rows.start), after: gap(rows.after), count: rows.start.length }
}

/** Time of `recommend` on a type of four and on one of six adjustments, turn about, new seeds. */
function cost() {
  const four = TYPES.sorrel
  const six: BikeType = {
    ...four,
    axes: {
      ...four.axes,
      frameHeight: {
        directionDeg: 90,
        scale: { marks: [0, 1, 2, 3, 4, 5].map((i) => ({ label: String(i + 1), mm: 20 * i })), halfMarks: false },
      },
      crankLength: {
        directionDeg: 0,
        scale: { marks: [165, 170, 175].map((mm) => ({ label: String(mm), mm })), halfMarks: false },
      },
    },
  }
  const timeOf = (bikeType: BikeType, seed: number, read: boolean) => {
    const rider = drawRider(POPULATIONS.own, bikeType, createRng(seed))
    const at = Object.fromEntries(axesOf(bikeType).map((axis) => [axis, label(bikeType, axis, 0.5)])) as Marks
    const evidence = [...statureAndInseam(rider), ...(read ? [goniometer(rider, at), plumbLine(rider, at)] : [])]
    const begun = performance.now()
    advise({ bikeType, evidence, seed, samples: 4000 })
    return performance.now() - begun
  }
  const median = (numbers: number[]) => numbers.toSorted((a, b) => a - b)[Math.floor(numbers.length / 2)]
  return [false, true].map((read) => {
    const times = { four: [] as number[], six: [] as number[] }
    for (let seed = 1; seed <= 16; seed++) {
      times.four.push(timeOf(four, seed, read))
      times.six.push(timeOf(six, seed, read))
    }
    return { read, four: median(times.four), six: median(times.six), ratio: median(times.six) / median(times.four) }
  })
}

const counts = types.map((type) => axesOf(type).length)
console.log(
  `${types.length} types with ${Math.min(...counts)} to ${Math.max(...counts)} adjustments; ` +
    `${types.filter((type) => furtherAxesOf(type).length > 0).length} with further ones, ` +
    `${types.filter((type) => !type.axes.seatSlide).length} without a seat slide.\n`,
)
const ms = (value: number) => `${value.toFixed(0)} ms`
const costs = cost()
console.log('| `recommend`, 4000 samples, median of 16 seeds turn about | four adjustments | six | ratio |')
console.log('|---|---|---|---|')
for (const { read, four, six, ratio } of costs)
  console.log(
    `| ${read ? 'knee and plumb line read' : 'before the first mount'} | ` +
      `${ms(four)} | ${ms(six)} | ${ratio.toFixed(2)} |`,
  )
const { there, home, count, ended } = translated()
console.log(
  `\n${count + ended} pairs of types; ${ended} end before the seat arrives, ${count} remain. There the seat lies ` +
    `within ${there.toFixed(2)} of half a mark from the pedal at most; back home within ${home.toFixed(2)} of half ` +
    'a mark of the one and half of the other.\n',
)
const { start, after, count: riders } = honest()
console.log(`| ${riders} riders: both checks of the saddle pass | stated | came true |\n|---|---|---|`)
console.log(`| at the first suggestion | ${percent(start.stated)} | ${percent(start.came)} |`)
console.log(`| there, once knee and plumb line were read | ${percent(after.stated)} | ${percent(after.came)} |`)
const { within, medianMm } = calibrated()
console.log(
  `\nOf predicted lengths ${percent(within)} lie within 1.96 of their standard deviations of the truth ` +
    `(median error ${medianMm.toFixed(1)} mm).`,
)
